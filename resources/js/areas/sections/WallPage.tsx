import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { api, ApiError, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import { Button } from '@/ui/Button';
import { Instead } from '@/ui/Instead';
import { QrCode } from '@/ui/QrCode';

const MINUTES = 5;

/** The code for the back row: as large as the screen allows, hiding itself again, with display names arriving. */
export function WallPage() {
    const { section = '' } = useParams();
    const navigate = useNavigate();
    // Hidden until asked for: a reloaded page, or one opened by its address, shows nothing by itself.
    const asked = (useLocation().state as { asked?: boolean } | null)?.asked === true;
    const [left, setLeft] = useState(asked ? MINUTES * 60 : 0);
    const [begun, setBegun] = useState(asked);
    const [qr, setQr] = useState(false);
    const askedFor = useQuery({
        queryKey: ['code', section],
        queryFn: () => data(api.GET('/api/sections/{section}/code', { params: { path: { section } } })),
        refetchInterval: 2_000,
        enabled: left > 0,
        retry: false,
    });
    const code = askedFor.data;
    useEffect(() => {
        const timer = setInterval(() => setLeft((n) => Math.max(0, n - 1)), 1000);
        return () => clearInterval(timer);
    }, []);
    useKey('Escape', 'Leave the wall', () => void navigate(-1));
    useKey('q', 'QR or letters', () => setQr(!qr));
    const missing = askedFor.error instanceof ApiError && askedFor.error.status === 404;
    // A try that failed hides no code that is on the wall; that there is none any more does.
    if (left > 0 && (missing || (!code && askedFor.error)))
        return (
            <Instead
                of={askedFor}
                what="the code"
                gone="The section has no open code, or it is not one of your sections."
                way={<Button onClick={() => void navigate(-1)}>Back</Button>}
            />
        );
    const show = () => {
        setBegun(true);
        setLeft(MINUTES * 60);
    };
    if (left === 0) {
        return (
            <main className="flex h-full flex-col items-center justify-center gap-6">
                <h1 className="text-2xl">
                    {begun && code ? `The code of ${code.section} is hidden again` : 'The code is hidden'}
                </h1>
                <p className="text-muted">Check the room first: any visitors or cameras?</p>
                <div className="flex gap-3">
                    <Button kind="primary" large autoFocus onClick={show}>
                        Show it for {MINUTES} minutes
                    </Button>
                    <Button large onClick={() => void navigate(-1)}>
                        Back
                    </Button>
                </div>
            </main>
        );
    }
    if (!code) return null;
    const groups = code.written.split('-');
    const size = `min(${(code.typeSize * 100).toFixed(2)}vw, 52vh)`;
    return (
        <main className="flex h-full flex-col px-[5vw] py-[5vh]">
            <div className="flex items-start justify-between">
                <h1 className="text-[min(5vh,44px)]">{code.section}</h1>
                <div className="flex gap-3">
                    <Button kind="quiet" onClick={() => setQr(!qr)}>
                        {qr ? 'letters' : 'QR'}
                    </Button>
                    <Button kind="quiet" onClick={() => void navigate(-1)}>
                        leave the wall
                    </Button>
                </div>
            </div>
            <div className="flex min-h-0 flex-1 items-center justify-center">
                {qr ? (
                    <QrCode
                        path={code.qr}
                        size={code.qrSize}
                        label={`Join link of ${code.section}`}
                        className="h-full max-h-[66vh]"
                    />
                ) : (
                    <p className="whitespace-nowrap font-mono font-semibold leading-none" style={{ fontSize: size }}>
                        <span className="sr-only">{code.written.replaceAll('-', '').split('').join(' ')}</span>
                        <span data-testid="wall-code" aria-hidden="true" className="inline-block">
                            {groups.map((group, i) => (
                                <span key={group + String(i)}>
                                    {i > 0 && <span className="text-marigold">-</span>}
                                    {group}
                                </span>
                            ))}
                        </span>
                    </p>
                )}
            </div>
            <div className="flex flex-wrap items-baseline justify-between gap-x-8 gap-y-2 border-t-2 border-ink pt-[3vh] text-[min(3.2vh,24px)]">
                <p>
                    Go to <b className="font-serif font-semibold">{code.place}</b> and type the code
                </p>
                <p>
                    {code.cap === null
                        ? `${code.students} ${code.students === 1 ? 'student is' : 'students are'} in`
                        : `${code.arrived.length} of ${code.cap} places taken`}
                    {code.waiting > 0 && `, ${code.waiting} at the door`}
                </p>
                <p className="text-muted">hides in {left > 60 ? `${Math.ceil(left / 60)} min` : `${left} s`}</p>
            </div>
            <p aria-live="polite" className="mt-[2vh] min-h-[1.5em] truncate text-[min(4vh,32px)]">
                {code.arrived.slice(0, 6).map((a, i) => (
                    <span key={a.name + (a.at ?? '')} className={i === 0 ? 'font-serif font-semibold' : 'text-muted'}>
                        {i > 0 && ', '}
                        {a.name}
                    </span>
                ))}
            </p>
            <p className="text-xs text-muted">
                On a picture {code.pictureMetres.toFixed(1)} m wide the letters are {code.letterHeight} mm high and can
                be read from {Math.floor(code.readableFrom)} m; half as wide, from half as far.
            </p>
        </main>
    );
}
