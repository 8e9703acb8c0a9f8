<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Intake\RecordPulls;
use App\Models\RecordSource;
use App\OneRoster\Client\RecordClient;
use App\Platform\Instant;
use App\Platform\Resource;

/** How the school's record is asked, and what came of it last. */
final readonly class RecordView extends Resource
{
    /**
     * @param  bool  $there whether one is set up
     * @param  list<string>  $hosts that this installation may ask; none where nobody has named any
     * @param  string  $asking what it is being asked for: whole or changes, '' where it is not
     * @param  string|null  $list the list the last pull became
     */
    public function __construct(
        public bool $there,
        public string $baseUrl,
        public string $tokenUrl,
        public string $clientId,
        public bool $nightly,
        public int $mostNew,
        public int $mostChanged,
        public ?string $pulledAt,
        public ?string $pulledWholeAt,
        public string $said,
        public array $hosts,
        public string $asking,
        public ?string $list,
    ) {}

    public static function of(?RecordSource $source): self
    {
        $at = fn(?string $instant): ?string => $instant === null ? null : Instant::iso(substr($instant, 0, 19));

        return new self(
            $source !== null,
            $source->base_url ?? '',
            $source->token_url ?? '',
            $source->client_id ?? '',
            (bool) ($source->nightly ?? false),
            $source->most_new ?? 30,
            $source->most_changed ?? 200,
            $at($source?->pulled_at),
            $at($source?->pulled_whole_at),
            (string) $source?->said,
            RecordClient::hosts(),
            RecordPulls::asking($source),
            $source?->list_id,
        );
    }
}
