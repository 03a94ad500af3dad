import { Button, Modal, SimpleGrid, Stack, Text, Title } from '@mantine/core';
import { textureWord } from '@tempera/contract/adviceWords';
import { isLook, sightings, textures, type Sighting } from '@tempera/core/facts';
import { useState } from 'react';
import { sightingWord } from '../journal/index.ts';

interface Props {
  /** Whether the grinder never held: then the feel of its grounds is the first guess. */
  never: boolean;
  onSeen: (sign: Sighting) => void;
  onClose: () => void;
}

/** How a customer's shot ran is told on the home page, where nobody timed it. */
const others = sightings.slice(textures.length).filter((sign) => !isLook(sign));

/** What fingers and eyes tell: the grounds, the cup, the puck. One tap notes it, and says what it means. */
export function LookDialog({ never, onSeen, onClose }: Props) {
  const [noted, setNoted] = useState<Sighting | null>(null);
  const see = (sign: Sighting): void => {
    onSeen(sign);
    setNoted(sign);
  };
  return (
    <Modal opened onClose={onClose} title="Seen or felt" centered size="lg">
      <Stack>
        <Title order={2} size="h3">
          The grounds feel like
        </Title>
        <SimpleGrid cols={{ base: 2, xs: 3 }} spacing={8}>
          {textures.map((texture) => (
            <Button key={texture} size="lg" px={6} variant="default" onClick={() => see(texture)}>
              {textureWord[texture]}
            </Button>
          ))}
        </SimpleGrid>
        <Text className="faint">
          {never
            ? 'A first guess for a grinder that nobody has dialled in: espresso lies between flour and fine salt.'
            : 'This grinder has held before: what it poured says more than fingers do.'}
        </Text>
        <Title order={2} size="h3">
          Or
        </Title>
        <Stack gap={8}>
          {others.map((sign) => (
            <Button key={sign} size="md" mih={48} variant="default" onClick={() => see(sign)}>
              {sightingWord[sign].split(':')[0]}
            </Button>
          ))}
        </Stack>
        <Text role="status" fw={600}>
          {noted && `Noted. ${sightingWord[noted]}.`}
        </Text>
        <Button size="lg" onClick={onClose}>
          Back to the bench
        </Button>
      </Stack>
    </Modal>
  );
}
