<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** The source of package types; they may be changed while a worker runs. */
interface TypeSource
{
    /** @throws TypeRefused where one of them can no longer be read */
    public function types(): PackageTypes;
}
