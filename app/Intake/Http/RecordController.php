<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Intake\Http\Wishes\PullWish;
use App\Intake\Http\Wishes\RecordWish;
use App\Intake\RecordPulls;
use App\Intake\Views\Pulled;
use App\Intake\Views\RecordView;
use App\Models\Person;
use App\Models\RecordSource;
use App\Models\School;
use App\OneRoster\Client\RecordClient;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Crypt;
use Vantrel\Core\Plan\Refusal;

/** The school's record, which lists come from by OneRoster. */
final readonly class RecordController
{
    public function __construct(private RecordPulls $pulls) {}

    #[Answers(RecordView::class, 'How the school’s record is asked, and what came of it last')]
    public function show(School $school): RecordView
    {
        return RecordView::of(RecordSource::query()->find($school->id));
    }

    #[Answers(RecordView::class, 'Name the school’s record; it is asked at once whether it answers')]
    #[Takes(RecordWish::class)]
    public function store(School $school, Request $request): RecordView
    {
        $wish = Wishes::of(RecordWish::class, $request);
        RecordClient::mustBeNamed($wish->baseUrl, 'base_url');
        RecordClient::mustBeNamed($wish->tokenUrl, 'token_url');
        $known = RecordSource::query()->find($school->id);
        // A secret is sent where it was given for, and nowhere else.
        $same = $known !== null && $known->token_url === $wish->tokenUrl && $known->client_id === $wish->clientId;
        if ($wish->clientSecret === null && !$same) {
            throw new Refusal('Type the client secret.', 'client_secret');
        }
        $source = $known ?? new RecordSource(['school_id' => $school->id]);
        $source->fill([
            'base_url' => rtrim($wish->baseUrl, '/'),
            'token_url' => $wish->tokenUrl,
            'client_id' => $wish->clientId,
            'sealed_key' =>
                $wish->clientSecret === null ? $known->sealed_key ?? '' : Crypt::encryptString($wish->clientSecret),
            'nightly' => (int) $wish->nightly,
            'most_new' => $wish->mostNew,
            'most_changed' => $wish->mostChanged,
            'changed_at' => now(),
            'changed_by' => Person::signedIn($request)->id,
        ]);
        (new RecordClient($source))->all('orgs');
        $source->save();

        return RecordView::of($source->refresh());
    }

    #[Answers(RecordView::class, 'Forget the school’s record; what came from it stays')]
    public function destroy(School $school): RecordView
    {
        RecordSource::query()->where('school_id', $school->id)->delete();

        return RecordView::of(null);
    }

    #[Answers(Pulled::class, 'Bring in the record: whole or what has changed, in the background, or one student')]
    #[Takes(PullWish::class)]
    public function pull(School $school, Request $request): Pulled
    {
        $wish = Wishes::of(PullWish::class, $request);
        if ($wish->what === 'one') {
            [$intake, $said] = $this->pulls->pull($school, $wish->what, $wish->number, Person::signedIn($request));

            return new Pulled($intake?->id, $said, false);
        }
        $this->pulls->ask($school, $wish->what, Person::signedIn($request));
        $source = RecordPulls::source($school);
        $asking = RecordPulls::asking($source) !== '';

        return new Pulled($asking ? null : $source->list_id, (string) $source->said, $asking);
    }
}
