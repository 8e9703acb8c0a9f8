import { useTranslation } from 'react-i18next';
import { useNavigate } from 'react-router';
import type { Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Leaf, LeafNote } from './Leaf';

/** In the section; whoever has just got an account learns the user name. */
export function Joined({ joined }: { joined: Schemas['Joined'] }) {
    const { t } = useTranslation();
    const navigate = useNavigate();
    return (
        <Leaf
            title={
                joined.already
                    ? t('You are in {{section}} already', { section: joined.section })
                    : t('You are in {{section}}', { section: joined.section })
            }
        >
            {joined.userName && (
                <LeafNote>
                    {t('Your user name is')}
                    <b className="my-2 block font-mono text-xl" dir="ltr">
                        {joined.userName}
                    </b>
                    {t('Write it down. You sign in with it and the password you chose.')}
                </LeafNote>
            )}
            <Button large kind="primary" onClick={() => void navigate('/')}>
                {t('My sections')}
            </Button>
        </Leaf>
    );
}
