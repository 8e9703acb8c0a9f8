<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Ledger\Snapshots;
use App\Platform\TryCounter;
use App\PrintRoom\FamilyCodes;
use Illuminate\Http\Request;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Guardians\Claims;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\LetterIssue;
use Vantrel\Core\Records\FamilyLetter;
use Vantrel\Core\Records\Person;

/** From the code on a family letter to the letter and its student. Unknown codes are counted as join codes are. */
final readonly class FamilyDoor
{
    public function __construct(private Snapshots $snapshots, private TryCounter $tries) {}

    /**
     * @return array{FamilyLetter, Person} the letter and the student it is about
     *
     * @throws Refusal saying what is wrong with the code
     * @throws TooManyRequestsHttpException
     */
    public function open(Request $request, string $typed): array
    {
        try {
            $code = CodeSymbols::parse($typed);
        } catch (MalformedCode $e) {
            throw new Refusal($e->mistake->sentence(), 'code', ['symbol' => $e->symbol]);
        }
        if (strlen($code->symbols) !== LetterIssue::CODE + 1) {
            throw new Refusal(
                'That is a different code. The family code has ten characters and is in the box on the letter.',
                'code',
            );
        }
        $account = $request->user()?->getAuthIdentifier();
        $address = [Limit::FamilyAddress, (string) $request->ip()];
        $limits = is_string($account) ? [[Limit::CodeAccount, $account], $address] : [$address];
        $this->tries->guard($limits[0]);
        $letter =
            $this->snapshots->list(
                FamilyLetter::class,
                fn($q) => $q->where('token_hash', FamilyCodes::hash($code)),
            )[0] ?? null;
        if ($letter === null) {
            array_map($this->tries->count(...), $limits);
            throw new Refusal('This code does not work any more. Ask the school for another letter.', 'code');
        }
        $student = $this->student($letter->studentId());
        Claims::mustWork($letter, $student);

        return [$letter, $student];
    }

    /** Whoever the letter was about, or who they were merged into since. */
    private function student(string $id): Person
    {
        $student = $this->snapshots->find(Person::class, $id);
        $into = $student?->mergedInto();
        $student = $into === null ? $student : $this->snapshots->find(Person::class, $into);

        return $student ?? throw new Refusal('This code does not work any more. Ask the school for another letter.');
    }
}
