<?php

declare(strict_types=1);

namespace App\Access;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\Takes;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Hash;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Codes\PasswordRules;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Placement\Enrolling;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** Coming into a section with its code. */
final class JoinController
{
    public function __construct(private readonly JoinDesk $desk, private readonly Ledger $ledger, private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    #[Answers(CodeCheck::class, 'Whether something typed can be a join code')]
    #[Takes(['code' => 'string'])]
    public function check(Request $request): CodeCheck
    {
        $request->validate(['code' => 'required|string|max:40']);
        try {
            return new CodeCheck(true, JoinCode::parse($request->string('code')->value())->written(), '', '');
        } catch (MalformedCode $e) {
            return new CodeCheck(false, '', $e->mistake->value, $e->getMessage());
        }
    }

    #[Answers(Joined::class, 'Come into a section with the account signed in')]
    #[Takes(['code' => 'string'])]
    public function store(Request $request): Joined
    {
        $request->validate(['code' => 'required|string|max:40']);
        /** @var Person $person */
        $person = $request->user();
        $section = $this->desk->section($request, $request->string('code')->value());
        $row = $this->snapshots->find(Entity::Person, $person->id) ?? throw new Refusal('This account is gone.');
        $enrollments = $this->snapshots->list(Entity::Enrollment, fn ($q) => $q->where('person_id', $person->id));
        $plan = Enrolling::byCode($section, $row, $enrollments, $this->kit->ids($this->kit->seed()), $this->today($section));
        if (! $plan->isEmpty()) {
            $this->ledger->apply($plan, $section->text('school_id'), $person, 'join');
        }

        return new Joined($section->text('name'), $plan->isEmpty(), '');
    }

    #[Answers(Joined::class, 'Make an account with a join code')]
    #[Takes(['code' => 'string', 'given_name' => 'string', 'family_name' => 'string', 'password' => 'string'])]
    public function account(Request $request, SignInDesk $signIns): Joined
    {
        $request->validate(['code' => 'required|string|max:40', 'given_name' => 'required|string|max:60', 'family_name' => 'required|string|max:60', 'password' => 'required|string|max:256']);
        $section = $this->desk->section($request, $request->string('code')->value());
        $name = NameReader::mend(new PersonName(NameReader::tidy($request->string('given_name')->value()), NameReader::tidy($request->string('family_name')->value())));
        $password = $request->string('password')->value();
        $problem = PasswordRules::forStudents()->problem($password, [$name->given, $name->family, $section->text('name')]);
        if ($problem !== null) {
            throw new Refusal($problem, 'password');
        }
        $plan = Enrolling::byNewAccount($section, $name, Hash::make($password), $this->kit->userNames(), $this->kit->ids($this->kit->seed()), $this->today($section));
        $this->ledger->apply($plan, $section->text('school_id'), null, 'join');
        $userName = $this->userNameIn($plan);
        $signIns->login($request, Person::query()->findOrFail(SignIn::query()->where('user_name', $userName)->firstOrFail()->person_id));

        return new Joined($section->text('name'), false, $userName);
    }

    private function userNameIn(Plan $plan): string
    {
        foreach ($plan->changes as $change) {
            if ($change->entity === Entity::SignIn) {
                return (string) $change->after['user_name'];
            }
        }

        return '';
    }

    private function today(Row $section): string
    {
        return $this->kit->today(School::query()->find($section->text('school_id')));
    }
}
