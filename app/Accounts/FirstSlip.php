<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Codes\QrSymbol;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\PrintRoom\CardSheet;
use Vantrel\Core\Records;

/** A slip for somebody whom no mail reaches: user name, and three words that open the account once. */
final readonly class FirstSlip
{
    private const SIDE = 22.0;

    public function __construct(private Snapshots $snapshots, private Ledger $ledger, private PlannerKit $kit) {}

    /** @return string the PDF; nothing of the words is kept but their hash */
    public function print(Person $person, Person $actor): string
    {
        $record = $this->snapshots->find(Records\Person::class, $person->id) ?? throw new NotFoundHttpException();
        $signIns = $this->snapshots->list(Records\SignIn::class, fn($q) => $q->where('person_id', $person->id));
        $opened = DB::table('sign_ins')
            ->where('person_id', $person->id)
            ->where(
                fn($q) => $q
                    ->whereNotNull('last_signed_in_at')
                    ->orWhere(fn($p) => $p->whereNotNull('password')->where('temporary', 0)),
            )
            ->exists();
        $seed = $this->kit->seed();
        $words = $this->kit->passphrases($seed)->draw();
        $plan = Credentials::temporary(
            $record,
            $signIns,
            $opened,
            Coordinators::schoolsOf($person->id) !== [],
            Hash::make($words),
        );
        $this->ledger->apply($plan, $person->school_id, $actor, Action::Cards);
        usort($signIns, fn(Records\SignIn $a, Records\SignIn $b): int => $a->id <=> $b->id);

        return self::page(
            School::query()->findOrFail($person->school_id)->name,
            $record->fullName(),
            $signIns[0]->userName(),
            $words,
        );
    }

    private static function page(string $school, string $name, string $userName, string $words): string
    {
        [$width, $height] = CardSheet::PAPERS['a4'];
        $base = rtrim((string) config('app.url'), '/');
        $pdf = new PrintedPages($width, $height, 'First sign-in', $school);
        $pdf->page();
        $inner = $width - 2 * self::SIDE;
        $pdf->put(Face::Bold, 10, $school, self::SIDE, 18, $inner);
        $pdf->stroke(self::SIDE, 24, $width - self::SIDE, 24);
        $size = $pdf->fitting("Your account, $name", Face::Serif, 22, 10, $inner) ?? 10.0;
        $pdf->put(Face::Serif, $size, "Your account, $name", self::SIDE, 29, $inner);
        $y = $pdf->paragraph(
            Face::Sans,
            11,
            'A mail with a link seems not to have reached you. These three words open your account once; you ' .
                'choose a password of your own there, and the slip is of no more use.',
            self::SIDE,
            42,
            $inner,
        );
        $pdf->frame(self::SIDE, $y + 4, $inner, 44, 0.3);
        foreach (
            [['Go to', (string) preg_replace('#^https?://#', '', $base)], ['User name', $userName], ['Words', $words]]
            as $i => [$label, $typed]
        ) {
            $at = $y + 9 + 12 * $i;
            $pdf->put(Face::Sans, 9, $label, self::SIDE + 6, $at, 30);
            $fits = $pdf->fitting($typed, Face::Mono, 14, 8, $inner - 78) ?? 8.0;
            $pdf->put(Face::Mono, $fits, $typed, self::SIDE + 32, $at - 0.8, $inner - 78);
        }
        $pdf->square(QrSymbol::of($base), $width - self::SIDE - 36, $y + 9, 32);
        $pdf->paragraph(
            Face::Sans,
            10,
            'Give it to them in person. Whoever has it before them can open the account.',
            self::SIDE,
            $y + 54,
            $inner,
        );

        return $pdf->bytes();
    }
}
