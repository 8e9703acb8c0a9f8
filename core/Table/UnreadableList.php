<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use RuntimeException;

/** The file cannot be read as a list. The message says why and what to do, and is fit to be shown. */
final class UnreadableList extends RuntimeException {}
