<?php

declare(strict_types=1);

namespace App\Work;

/** A task that is carried out as the person who ordered it: they see what they may, and the record names them. */
interface ForPerson
{
}
