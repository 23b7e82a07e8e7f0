import { Box, Input, type InputProps } from '@chakra-ui/react';
import { Eye, EyeOff } from 'lucide-react';
import { useState } from 'react';
import { IconAct } from './IconAct.tsx';

/** A password, hidden until one wants to see it. */
export function PasswordInput(props: InputProps & { ref?: React.Ref<HTMLInputElement> }) {
  const [isShown, setShown] = useState(false);
  return (
    <Box position="relative" width="100%">
      <Input {...props} type={isShown ? 'text' : 'password'} paddingInlineEnd="38px" />
      <Box position="absolute" insetInlineEnd="3px" top="50%" transform="translateY(-50%)">
        <IconAct
          label={isShown ? 'Hide the password' : 'Show the password'}
          onClick={() => setShown(!isShown)}
        >
          {isShown ? <EyeOff size={16} /> : <Eye size={16} />}
        </IconAct>
      </Box>
    </Box>
  );
}
