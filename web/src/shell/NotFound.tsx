import { Button } from '@chakra-ui/react';
import { Link } from 'react-router-dom';
import { Page } from './Page.tsx';

export function NotFound() {
  return (
    <Page title="There is nothing at this address.">
      <Button asChild>
        <Link to="/">All jobs</Link>
      </Button>
    </Page>
  );
}
