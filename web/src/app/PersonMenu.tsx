import { DropdownMenu } from 'radix-ui';
import { useNavigate } from 'react-router';
import { meApi } from '../wire/me.ts';
import { LANGUAGE_NAMES, LANGUAGES, type Language, language, say, speak } from '../wire/words.ts';

const item = 'block w-full cursor-pointer px-4 py-2 text-left outline-none data-[highlighted]:bg-green-wash';

/** Who I am; on a phone also the way to the other zones. */
export function PersonMenu({
  person,
  inWorkshop,
  demo,
}: {
  person: { name: string; kind: 'staff' | 'contact'; worksFloor: boolean };
  inWorkshop: boolean;
  demo: boolean;
}) {
  const navigate = useNavigate();
  const [signOut] = meApi.useSignOutMutation();
  const [setLanguage] = meApi.useSetLanguageMutation();
  const read = async (chosen: Language): Promise<void> => {
    await speak(chosen);
    await setLanguage({ body: { language: chosen } });
  };
  const leave = async (): Promise<void> => {
    await signOut();
    navigate('/');
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="whitespace-nowrap">{person.name}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={8}
          className="z-20 min-w-44 rounded-md border border-rule-strong bg-sheet py-1 shadow-lg"
        >
          <div className="sm:hidden">
            <DropdownMenu.Item className={item} onSelect={() => navigate('/')}>
              {say('common:frontDesk')}
            </DropdownMenu.Item>
            {person.worksFloor ? (
              <DropdownMenu.Item className={item} onSelect={() => navigate('/floor')}>
                {say('common:floor')}
              </DropdownMenu.Item>
            ) : null}
            {inWorkshop ? (
              <DropdownMenu.Item className={item} onSelect={() => navigate('/workshop')}>
                {say('common:workshop')}
              </DropdownMenu.Item>
            ) : null}
            {demo ? (
              <DropdownMenu.Item className={item} onSelect={() => navigate('/mailroom')}>
                {say('common:mailroom')}
              </DropdownMenu.Item>
            ) : null}
          </div>
          {person.kind === 'staff' ? (
            <DropdownMenu.Item className={item} onSelect={() => navigate('/account')}>
              {say('common:account')}
            </DropdownMenu.Item>
          ) : null}
          {LANGUAGES.filter((each) => each !== language()).map((each) => (
            <DropdownMenu.Item key={each} lang={each} className={item} onSelect={() => void read(each)}>
              {LANGUAGE_NAMES[each]}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={item} onSelect={toggleTheme}>
            {say('common:theme')}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={leave}>
            {say('common:signOut')}
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function toggleTheme(): void {
  const root = document.documentElement;
  const dark = root.dataset.theme ? root.dataset.theme === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  root.dataset.theme = dark ? 'light' : 'dark';
}
