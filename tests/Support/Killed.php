<?php

declare(strict_types=1);

namespace Tests\Support;

/** Stands for the end of the process: nothing in the code under test catches it. */
final class Killed extends \Error
{
}
