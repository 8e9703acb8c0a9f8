<?php

declare(strict_types=1);

namespace App\Mailroom\Http;

use App\Mailroom\HearsChoices;
use App\Mailroom\HearsLink;
use App\Mailroom\Http\Wishes\HearsTokenWish;
use App\Mailroom\Http\Wishes\TokenHearsWish;
use App\Mailroom\Views\HearsView;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Guardians\Hears;

/** How often somebody hears, chosen by the link of a digest, without signing in. */
final class HearsController
{
    /** Where a mail program ends it with one touch (RFC 8058): the request holds nothing but the link itself. */
    public function oneTouch(string $token): Response
    {
        HearsChoices::choose($this->person($token)->id, Hears::Off, null);

        return response()->noContent();
    }

    /** Looked at, by a person or by a program that follows links, it ends nothing. */
    public function page(string $token): RedirectResponse
    {
        return redirect("/hears#$token");
    }

    #[Answers(HearsView::class, 'How often somebody hears, by the link of a digest')]
    #[Takes(HearsTokenWish::class)]
    public function show(Request $request): HearsView
    {
        return $this->view($this->person(Wishes::of(HearsTokenWish::class, $request)->token));
    }

    #[Answers(HearsView::class, 'Choose how often, by the link of a digest')]
    #[Takes(TokenHearsWish::class)]
    public function update(Request $request): HearsView
    {
        $wish = Wishes::of(TokenHearsWish::class, $request);
        $person = $this->person($wish->token);
        HearsChoices::choose($person->id, $wish->often, $wish->hour);

        return $this->view($person);
    }

    private function person(string $token): Person
    {
        // A link outlives the account it was sent to.
        $person = Person::query()->find((string) HearsLink::person($token))?->now();

        return $person?->state === 'active' ? $person : throw new NotFoundHttpException();
    }

    private function view(Person $person): HearsView
    {
        $now = HearsChoices::of($person->id);

        return new HearsView(School::query()->findOrFail($person->school_id)->name, $now->often, $now->hour);
    }
}
