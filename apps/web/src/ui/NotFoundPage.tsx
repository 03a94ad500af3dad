import { Text, Title } from '@mantine/core';
import { Link } from 'react-router';

export function NotFoundPage() {
  return (
    <>
      <Title order={1}>There is nothing here</Title>
      <Text mt="sm">
        The address may be old. <Link to="/">Go back to the bar</Link>.
      </Text>
    </>
  );
}
