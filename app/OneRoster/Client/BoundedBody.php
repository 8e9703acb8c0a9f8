<?php

declare(strict_types=1);

namespace App\OneRoster\Client;

use GuzzleHttp\Psr7\StreamDecoratorTrait;
use GuzzleHttp\Psr7\Utils;
use Psr\Http\Message\StreamInterface;

/** Takes an answer in as it is unpacked, and no more of it than it may have: then the connection is cut. */
final class BoundedBody implements StreamInterface
{
    use StreamDecoratorTrait;

    private StreamInterface $stream;

    private int $bytes = 0;

    public bool $isOver = false;

    public function __construct(private readonly int $most)
    {
        $this->stream = Utils::streamFor(Utils::tryFopen('php://temp', 'w+'));
    }

    /** @return int 0 where it would be more than there may be: what sends it stops then */
    public function write($string): int
    {
        $this->bytes += strlen($string);
        $this->isOver = $this->isOver || $this->bytes > $this->most;

        return $this->isOver ? 0 : $this->stream->write($string);
    }
}
