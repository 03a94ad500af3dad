import {
  ActionIcon,
  Box,
  Button,
  Checkbox,
  Group,
  Modal,
  Stack,
  Text,
  useComputedColorScheme,
  useMantineColorScheme,
} from '@mantine/core';
import { useDisclosure } from '@mantine/hooks';
import type { Session } from '@tempera/contract/team';
import { IconKeyboard, IconMoon, IconSearch, IconSun } from '@tabler/icons-react';
import { lazy, Suspense, useEffect, useRef, useState, type ReactNode } from 'react';
import { Link, NavLink, useLocation, useNavigate } from 'react-router';
import { keepsHouse } from '../kernel/sheets.ts';
import { AskYes, ChangePerson, ProofAgain, Unconfirmed, UnitsChoice } from '../team/index.ts';
import { useOutbox } from '../kernel/facts.tsx';
import { useHand } from '../kernel/hand.ts';
import { useLive } from '../kernel/live.ts';
import { useLocked } from '../kernel/lock.ts';
import { useNewVersion } from '../kernel/offline.ts';
import { cue, mayAskToNotify, useSounds } from '../kernel/senses.ts';
import { OutboxStatus } from './OutboxStatus.tsx';
import { AfterFirst, useFirstPage } from '../kernel/afterFirst.ts';
import { askPalette } from '../kernel/paletteStore.ts';
import { Slot } from '../kernel/slots.tsx';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { Leave } from './Leave.tsx';
import { LockScreen } from './LockScreen.tsx';
import { HelpSheet } from './HelpSheet.tsx';
import { rooms } from './rooms.ts';

const navigation = rooms.flatMap(({ nav }) => nav ?? []);

/** The frame around every page: where you are, who you are, what is unsent. */
export function Frame({ session, children }: { session: Session | null; children: ReactNode }) {
  const outbox = useOutbox();
  const navigate = useNavigate();
  const [help, setHelp] = useState(false);
  const [hand] = useHand();
  const locked = useLocked();
  // What happens elsewhere is heard of once there is something here to look at: a page that is being drawn has just been read.
  const hears = useFirstPage() && !locked;
  const aloneSinceMs = useLive(hears ? session && `${session.site.id} ${session.person.id}` : null, outbox, rooms);
  const leads = Object.fromEntries(navigation.map(({ key, to }) => [key, () => void navigate(to)]));
  useShortcuts(
    session && !locked ? { '?': () => setHelp(true), '/': askPalette, ...leads } : { '?': () => setHelp(true) },
  );
  return (
    <div className="frame" data-hand={hand} inert={locked}>
      <a className="skip" href="#main">
        Skip to the page
      </a>
      <header className="frame-bar">
        <Link to="/" className="frame-mark" aria-label="Tempera, to the bar">
          <img src="/mark.svg" width={28} height={28} alt="" />
          <span>Tempera</span>
        </Link>
        {session && (
          <nav className="frame-nav" aria-label="Pages">
            {navigation.map(({ label, to }) => (
              <NavLink key={to} to={to} end={to === '/'}>
                {label}
              </NavLink>
            ))}
          </nav>
        )}
        <span className="frame-space" />
        {session && <OutboxStatus aloneSinceMs={aloneSinceMs} session={session} />}
        {session && <FindButton />}
        <Box visibleFrom="sm">
          <SchemeSwitch />
        </Box>
        <ActionIcon aria-label="Keyboard help" visibleFrom="sm" onClick={() => setHelp(true)}>
          <IconKeyboard />
        </ActionIcon>
        {session && <Person session={session} alone={aloneSinceMs !== null} />}
      </header>
      <main id="main" className="frame-main">
        <NewVersion />
        {session && <Unconfirmed session={session} />}
        {children}
      </main>
      {session && <AskYes session={session} />}
      {session && <ProofAgain session={session} />}
      {session && <LockScreen session={session} />}
      <AfterFirst>
        {session && <Slot of="beside" told={{ session }} />}
        <HelpSheet opened={help} onClose={() => setHelp(false)} />
        {session && (
          <Suspense fallback={null}>
            <Palette session={session} onHelp={() => setHelp(true)} />
          </Suspense>
        )}
      </AfterFirst>
    </div>
  );
}

/**
 * A newer version is taken up between two tasks, and only there: as somebody goes to another page, while nobody looks, or when it is
 * asked for and nobody has gone on meanwhile. It may take a browser half a minute to have it ready.
 */
function NewVersion() {
  const takeUp = useNewVersion();
  const { pathname } = useLocation();
  const [askedAt, setAskedAt] = useState<string | null>(null);
  const stoodAt = useRef(pathname);
  useEffect(() => {
    const moved = stoodAt.current !== pathname;
    stoodAt.current = pathname;
    if (takeUp && ((moved && !pathname.startsWith('/bench')) || askedAt === pathname)) takeUp();
  }, [takeUp, pathname, askedAt]);
  useEffect(() => {
    if (!takeUp) return undefined;
    const whenHidden = (): void => {
      if (document.hidden) takeUp();
    };
    document.addEventListener('visibilitychange', whenHidden);
    return () => document.removeEventListener('visibilitychange', whenHidden);
  }, [takeUp]);
  if (!takeUp) return null;
  return (
    <Group className="sheet" mb="md" role="status" justify="space-between">
      <Text>A newer version is here. It is taken up when you go to another page.</Text>
      <Button mih={48} variant="default" loading={askedAt === pathname} onClick={() => setAskedAt(pathname)}>
        Take it up now
      </Button>
    </Group>
  );
}

const Palette = lazy(() => import('./Palette.tsx'));

function FindButton() {
  return (
    <ActionIcon aria-label="Find" onClick={askPalette}>
      <IconSearch />
    </ActionIcon>
  );
}

/** How this device makes itself heard, and the hand that works at it. */
function Senses() {
  const [sounds, setSounds] = useSounds();
  const [hand, setHand] = useHand();
  const [asks, setAsks] = useState(mayAskToNotify);
  return (
    <Group justify="space-between">
      <Checkbox
        size="md"
        label="Sounds and shakes at “stop now” and when something is due"
        checked={sounds}
        onChange={(event) => {
          setSounds(event.currentTarget.checked);
          if (event.currentTarget.checked) cue('due');
        }}
      />
      <Checkbox
        size="md"
        label="Left-handed: what is tapped most stands on the left"
        checked={hand === 'left'}
        onChange={(event) => setHand(event.currentTarget.checked ? 'left' : 'right')}
      />
      {asks && (
        <Button
          variant="default"
          mih={48}
          onClick={() => void Notification.requestPermission().then(() => setAsks(mayAskToNotify()))}
        >
          Tell me in the background too
        </Button>
      )}
    </Group>
  );
}

function SchemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  return (
    <ActionIcon
      aria-label={scheme === 'light' ? 'Before-dawn colours' : 'Day colours'}
      onClick={() => setColorScheme(scheme === 'light' ? 'dark' : 'light')}
    >
      {scheme === 'light' ? <IconMoon /> : <IconSun />}
    </ActionIcon>
  );
}

function Person({ session, alone }: { session: Session; alone: boolean }) {
  const [opened, { open, close }] = useDisclosure(false);
  return (
    <>
      <Button
        variant="default"
        px="sm"
        style={{ flexShrink: 0 }}
        onClick={open}
        aria-label={`Signed in as ${session.person.name}`}
      >
        {session.person.name}
      </Button>
      <AfterFirst>
        <Modal opened={opened} onClose={close} title={session.person.name} centered>
          <Stack>
            <Text>
              {session.site.name}. Everything entered now is logged under {session.person.name}.
            </Text>
            {opened && <ChangePerson session={session} onDone={close} />}
            <UnitsChoice session={session} />
            <Senses />
            <Group>
              <Button component={Link} to="/me" variant="default" onClick={close}>
                Your PIN and sessions
              </Button>
              {keepsHouse(session) && (
                <Button component={Link} to="/team" variant="default" onClick={close}>
                  Team
                </Button>
              )}
            </Group>
            <Box hiddenFrom="sm">
              <SchemeSwitch />
            </Box>
            <Leave session={session} alone={alone} />
          </Stack>
        </Modal>
      </AfterFirst>
    </>
  );
}
