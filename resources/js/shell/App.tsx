import { lazy, Suspense } from 'react';
import { useTranslation } from 'react-i18next';
import { Navigate, Route, Routes } from 'react-router';
import { HomePage } from '@/areas/access/HomePage';
import { Instead } from '@/ui/Instead';
import { useAskedMe } from './session';
import { EndedSession } from './EndedSession';

// Each page is fetched when somebody goes there: a phone on a slow line gets its own and no other.
const AccountPage = lazy(() => import('@/areas/access/secrets').then((page) => ({ default: page.AccountPage })));
const CardPage = lazy(() => import('@/areas/access/CardPage').then((page) => ({ default: page.CardPage })));
const FamilyPage = lazy(() => import('@/areas/access/FamilyPage').then((page) => ({ default: page.FamilyPage })));
const ForgottenPage = lazy(() =>
    import('@/areas/access/ForgottenPage').then((page) => ({ default: page.ForgottenPage })),
);
const NewPasswordPage = lazy(() =>
    import('@/areas/access/ForgottenPage').then((page) => ({ default: page.NewPasswordPage })),
);
const InvitedPage = lazy(() => import('@/areas/access/InvitedPage').then((page) => ({ default: page.InvitedPage })));
const GuardianPage = lazy(() => import('@/areas/access/GuardianPage').then((page) => ({ default: page.GuardianPage })));
const OwnPage = lazy(() => import('@/areas/access/OwnPage').then((page) => ({ default: page.OwnPage })));
const HearsPage = lazy(() => import('@/areas/access/HearsPage').then((page) => ({ default: page.HearsPage })));
const JoinPage = lazy(() => import('@/areas/access/JoinPage').then((page) => ({ default: page.JoinPage })));
const MustPage = lazy(() => import('@/areas/access/secrets').then((page) => ({ default: page.MustPage })));
const ComePage = lazy(() => import('@/areas/access/ComePage').then((page) => ({ default: page.ComePage })));
const RoomPage = lazy(() => import('@/areas/access/RoomPage').then((page) => ({ default: page.RoomPage })));
const SignInPage = lazy(() => import('@/areas/access/SignInPage').then((page) => ({ default: page.SignInPage })));
const ConfirmPage = lazy(() => import('@/areas/access/WaitPage').then((page) => ({ default: page.ConfirmPage })));
const WallPage = lazy(() => import('@/areas/sections/WallPage').then((page) => ({ default: page.WallPage })));
const Staff = lazy(() => import('./Staff'));

export function App() {
    return (
        <>
            <EndedSession />
            <Suspense fallback={<OnItsWay />}>
                <Routes>
                    <Route path="/in/:code?" element={<JoinPage />} />
                    <Route path="/come" element={<ComePage />} />
                    <Route path="/family" element={<FamilyPage />} />
                    <Route path="/guardian" element={<GuardianPage />} />
                    <Route path="/hears" element={<HearsPage />} />
                    <Route path="/children" element={<Children />} />
                    <Route path="/own" element={<Own />} />
                    <Route path="/invited/:token?" element={<InvitedPage />} />
                    <Route path="/room/:token?" element={<RoomPage />} />
                    <Route path="/confirm/:token?" element={<ConfirmPage />} />
                    <Route path="/b" element={<CardPage />} />
                    <Route path="/forgotten" element={<ForgottenPage />} />
                    <Route path="/new-password/:token?" element={<NewPasswordPage />} />
                    <Route path="/account" element={<Account />} />
                    <Route path="/wall/:section" element={<WallPage />} />
                    <Route path="/s/:school/*" element={<Staff />} />
                    <Route path="*" element={<Start />} />
                </Routes>
            </Suspense>
        </>
    );
}

function OnItsWay() {
    const { t } = useTranslation();
    return (
        <main aria-busy="true">
            <p role="status" className="appears px-6 py-10 text-muted">
                {t('One moment…')}
            </p>
        </main>
    );
}

/**
 * Everyone's first address: the own page of a student or guardian, the Desk of a coordinator, the sections of a
 * teacher.
 */
function Start() {
    const asked = useAskedMe();
    const me = asked.data;
    if (me === undefined) return <Instead of={asked} />;
    if (me === null) return <SignInPage />;
    if (me.must !== '') return <MustPage me={me} />;
    if (me.kind !== 'staff') return <HomePage />;
    const first = me.schools.find((s) => s.coordinates) ?? me.schools[0];
    if (!first)
        return <SignInPage note="Your account belongs to no school with a current year. Ask the coordinator." />;
    return <Navigate replace to={`/s/${first.code}/${first.coordinates ? 'desk' : 'sections'}`} />;
}

/** The page of children, also for a teacher who is a guardian besides. */
function Children() {
    const asked = useAskedMe();
    const me = asked.data;
    if (me === undefined) return <Instead of={asked} />;
    if (me === null) return <SignInPage then="/children" />;
    return me.must !== '' || me.kind === 'student' ? <Navigate replace to="/" /> : <HomePage />;
}

function Own() {
    const asked = useAskedMe();
    const me = asked.data;
    if (me === undefined) return <Instead of={asked} />;
    if (me === null) return <SignInPage then="/own" />;
    return me.must !== '' || me.kind === 'student' ? <Navigate replace to="/" /> : <OwnPage />;
}

function Account() {
    const asked = useAskedMe();
    const me = asked.data;
    if (me === undefined) return <Instead of={asked} />;
    return me === null || me.must !== '' || me.room !== '' ? <Navigate replace to="/" /> : <AccountPage me={me} />;
}
