import { useNavigate } from 'react-router';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Menu, MenuItem } from '@/ui/Menu';

/** What else can be done with a section. */
export function SectionMenu({
    school,
    id,
    may,
    onChoose,
}: {
    school: School;
    id: string;
    may: (power: string) => boolean;
    onChoose: (dialog: 'edit' | 'reserves' | 'archive') => void;
}) {
    const navigate = useNavigate();
    const go = (to: string) => () => void navigate(`/s/${school.code}/${to}`);
    return (
        <Menu align="end" trigger={<Button>More</Button>}>
            <MenuItem onSelect={go(`sections/${id}/notices`)}>Notices, dates and work</MenuItem>
            <MenuItem onSelect={go(`sections/${id}/as-student`)}>As a student sees it</MenuItem>
            {may('edit_section') && <MenuItem onSelect={() => onChoose('edit')}>Change name, period, seats</MenuItem>}
            {may('place_students') && (
                <MenuItem onSelect={go(`sections/${id}/invited`)}>Invite students or families by mail</MenuItem>
            )}
            {may('place_students') && <MenuItem onSelect={() => onChoose('reserves')}>Make reserve accounts</MenuItem>}
            {school.coordinates && <MenuItem onSelect={go(`ledger?about=${id}`)}>What happened to it</MenuItem>}
            {may('archive') && <MenuItem onSelect={() => onChoose('archive')}>Archive</MenuItem>}
        </Menu>
    );
}
