<?php

declare(strict_types=1);

namespace App\Access;

use App\Ledger\Snapshots;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\RateLimiter;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/** From a typed code to its section. Only well-formed unknown codes count as tries; mistyped ones are never looked up. */
final class JoinDesk
{
    private const DAY = 86400;

    public function __construct(private readonly Snapshots $snapshots)
    {
    }

    /** @throws Refusal saying which kind of mistake it is */
    public function section(Request $request, string $typed): Row
    {
        try {
            $code = JoinCode::parse($typed);
        } catch (MalformedCode $e) {
            throw new Refusal($e->getMessage(), 'code');
        }
        $key = 'join|'.$request->ip();
        if (RateLimiter::tooManyAttempts($key, (int) config('vantrel.code_tries_per_day'))) {
            throw new TooManyRequestsHttpException(RateLimiter::availableIn($key), 'Too many tries.');
        }
        $sectionId = DB::table('join_codes as c')->join('sections as s', 's.id', '=', 'c.section_id')
            ->where('c.code', $code->symbols)->where('c.state', 'open')->where('s.state', 'open')->value('s.id');
        $section = $sectionId === null ? null : $this->snapshots->find(Entity::Section, (string) $sectionId);
        if ($section === null) {
            RateLimiter::hit($key, self::DAY);
            throw new Refusal('This code opens nothing, or not any more. Ask your teacher for the one that works today.', 'code');
        }

        return $section;
    }
}
