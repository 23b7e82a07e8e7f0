import { IconButton, Menu, Portal } from '@chakra-ui/react';
import { Moon, Sun } from 'lucide-react';
import { useColours, type ColourChoice } from '../look/colour-mode.ts';

const CHOICES: [ColourChoice, string][] = [
  ['light', 'Light'],
  ['dark', 'Dark'],
  ['system', 'As the system has it'],
];

/** Light or dark, or as the computer has it. */
export function LookMenu() {
  const { choice, mode, choose } = useColours();
  return (
    <Menu.Root>
      <Menu.Trigger asChild>
        <IconButton
          variant="ghost"
          size="xs"
          color="inherit"
          aria-label="Light or dark"
          title="Light or dark"
        >
          {mode === 'dark' ? <Moon size={16} /> : <Sun size={16} />}
        </IconButton>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content background="sheet" borderWidth="1px" borderColor="rule" minWidth="180px">
            <Menu.RadioItemGroup value={choice} onValueChange={(d) => choose(d.value as ColourChoice)}>
              {CHOICES.map(([value, name]) => (
                <Menu.RadioItem key={value} value={value}>
                  {name}
                  <Menu.ItemIndicator />
                </Menu.RadioItem>
              ))}
            </Menu.RadioItemGroup>
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}
