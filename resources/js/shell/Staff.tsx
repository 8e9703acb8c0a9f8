import { Suspense } from 'react';
import { Navigate, Route, Routes, useLocation, useParams } from 'react-router';
import { SignInPage } from '@/areas/access/SignInPage';
import { DeskPage } from '@/areas/desk/DeskPage';
import { ListPage } from '@/areas/intake/ListPage';
import { IntakePage } from '@/areas/intake/IntakePage';
import { LedgerPage } from '@/areas/ledger/LedgerPage';
import { LookAlikesPage } from '@/areas/look-alikes/LookAlikesPage';
import { RollPage } from '@/areas/roll/RollPage';
import { SectionPage } from '@/areas/sections/SectionPage';
import { SectionsPage } from '@/areas/sections/SectionsPage';
import { Instead } from '@/ui/Instead';
import { Frame } from './Frame';
import { later } from './later';
import { ALL, allSchools, type School, useAskedMe } from './session';

// Seldom looked at: they come when they are.
const DistrictDeskPage = later(() => import('@/areas/desk/DistrictDeskPage').then((page) => page.DistrictDeskPage));
const CoveragePage = later(() => import('@/areas/desk/CoveragePage').then((page) => page.CoveragePage));
const SheetPage = later(() => import('@/areas/intake/SheetPage').then((page) => page.SheetPage));
const TransfersPage = later(() => import('@/areas/accounts/TransfersPage').then((page) => page.TransfersPage));
const PrintRoomPage = later(() => import('@/areas/print-room/PrintRoomPage').then((page) => page.PrintRoomPage));
const GuardiansPage = later(() => import('@/areas/guardians/GuardiansPage').then((page) => page.GuardiansPage));
const ClaimsPage = later(() => import('@/areas/guardians/ClaimsPage').then((page) => page.ClaimsPage));
const MailroomPage = later(() => import('@/areas/mailroom/MailroomPage').then((page) => page.MailroomPage));
const NoticesPage = later(() => import('@/areas/mailroom/NoticesPage').then((page) => page.NoticesPage));
const ClusterPage = later(() => import('@/areas/look-alikes/ClusterPage').then((page) => page.ClusterPage));
const AsStudentPage = later(() => import('@/areas/sections/AsStudentPage').then((page) => page.AsStudentPage));
const InvitedPage = later(() => import('@/areas/sections/InvitedPage').then((page) => page.InvitedPage));
const LettersPage = later(() => import('@/areas/mailroom/LettersPage').then((page) => page.LettersPage));
const SettingsPage = later(() => import('@/areas/settings/SettingsPage').then((page) => page.SettingsPage));
const YearTurnPage = later(() => import('@/areas/year-turn/YearTurnPage').then((page) => page.YearTurnPage));

/** The pages of staff, which a student's phone never fetches. */
export default function Staff() {
    const asked = useAskedMe();
    const me = asked.data;
    const { school: code } = useParams();
    const { pathname, search } = useLocation();
    if (me === undefined) return <Instead of={asked} />;
    // A link into the application leads there once whoever follows it has signed in.
    if (me === null) return <SignInPage then={pathname + search} />;
    const school: School | undefined =
        me.schools.find((s) => s.code === code) ?? (code === ALL ? allSchools(me) : undefined);
    if (!school || me.must !== '') return <Navigate replace to="/" />;
    const only = (page: React.ReactNode) =>
        school.coordinates ? page : <Navigate replace to={`/s/${school.code}/sections`} />;
    if (school.each)
        return (
            <Frame me={me} school={school}>
                <Suspense fallback={<Loading />}>
                    <Routes>
                        <Route path="desk" element={<DistrictDeskPage />} />
                        <Route path="roll" element={<RollPage school={school} />} />
                        <Route path="look-alikes" element={<LookAlikesPage school={school} />} />
                        <Route path="look-alikes/:accounts" element={<ClusterPage school={school} />} />
                        <Route path="*" element={<Navigate replace to={`/s/${school.code}/desk`} />} />
                    </Routes>
                </Suspense>
            </Frame>
        );
    return (
        <Frame me={me} school={school}>
            <Suspense fallback={<Loading />}>
                <Routes>
                    <Route path="desk" element={only(<DeskPage school={school} />)} />
                    <Route path="desk/coverage" element={only(<CoveragePage school={school} />)} />
                    <Route path="intake" element={only(<IntakePage school={school} />)} />
                    <Route path="intake/:id" element={only(<ListPage school={school} />)} />
                    <Route path="intake/:id/sheet" element={only(<SheetPage />)} />
                    <Route path="guardians" element={only(<GuardiansPage school={school} />)} />
                    <Route path="guardians/requests" element={only(<ClaimsPage school={school} />)} />
                    <Route path="transfers" element={only(<TransfersPage school={school} />)} />
                    <Route path="roll" element={only(<RollPage school={school} />)} />
                    <Route path="sections" element={<SectionsPage school={school} />} />
                    <Route path="sections/:id" element={<SectionPage school={school} />} />
                    <Route path="sections/:id/as-student" element={<AsStudentPage school={school} />} />
                    <Route path="sections/:id/notices" element={<NoticesPage school={school} />} />
                    <Route path="sections/:id/invited" element={<InvitedPage school={school} />} />
                    <Route path="settings" element={only(<SettingsPage school={school} />)} />
                    <Route path="print-room" element={only(<PrintRoomPage school={school} />)} />
                    <Route path="look-alikes" element={only(<LookAlikesPage school={school} />)} />
                    <Route path="look-alikes/:accounts" element={only(<ClusterPage school={school} />)} />
                    <Route path="year-turn" element={only(<YearTurnPage school={school} />)} />
                    <Route path="mailroom" element={only(<MailroomPage school={school} />)} />
                    <Route path="mailroom/letters" element={only(<LettersPage school={school} />)} />
                    <Route path="mailroom/notices" element={only(<NoticesPage school={school} />)} />
                    <Route path="ledger" element={only(<LedgerPage school={school} />)} />
                    <Route
                        path="*"
                        element={
                            <Navigate replace to={`/s/${school.code}/${school.coordinates ? 'desk' : 'sections'}`} />
                        }
                    />
                </Routes>
            </Suspense>
        </Frame>
    );
}

function Loading() {
    return (
        <p role="status" aria-busy="true" className="px-6 py-4 text-sm text-muted">
            Loading the page…
        </p>
    );
}
