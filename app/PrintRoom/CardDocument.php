<?php

declare(strict_types=1);

namespace App\PrintRoom;

use TCPDF;

/** A page of cards: the library without its header, its footer and the line it puts on every last page for itself. */
final class CardDocument extends TCPDF
{
    public function __construct(float $width, float $height)
    {
        parent::__construct('P', 'mm', [$width, $height], true, 'UTF-8');
        $this->tcpdflink = false;
        $this->setPrintHeader(false);
        $this->setPrintFooter(false);
    }
}
