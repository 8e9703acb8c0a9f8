<?php

declare(strict_types=1);

namespace App\Platform;

use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/** A file made for one answer, and gone once it is sent. */
final class FileOut
{
    /** @return string path of an empty file to write it to */
    public static function scratch(): string
    {
        return (string) tempnam(sys_get_temp_dir(), 'vantrel');
    }

    /** @param  string  $name as it is offered to whoever keeps it; what no file can be called is taken out */
    public static function response(string $path, string $name, string $contentType): BinaryFileResponse
    {
        $name = trim((string) preg_replace('/[\/\\\\%\p{Cc}]+/u', ' ', $name));

        return (new BinaryFileResponse($path, 200, ['Content-Type' => $contentType, 'Cache-Control' => 'no-store']))
            ->setContentDisposition('attachment', $name, Str::ascii($name))
            ->deleteFileAfterSend();
    }
}
