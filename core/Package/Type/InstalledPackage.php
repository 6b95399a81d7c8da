<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** A system, a theme or an extension that was found on a server. */
final readonly class InstalledPackage
{
    /**
     * @param  string  $directory  below the document root, "" is the document root itself
     * @param  string|null  $name  its own name; systems have none
     * @param  string|null  $version  null where the file that names it could not be understood
     */
    public function __construct(
        public PackageType $type,
        public string $directory,
        public ?string $name,
        public ?string $version,
    ) {
    }

    /** @return array{type: string, directory: string, name: string|null, version: string|null} */
    public function toArray(): array
    {
        return [
            'type' => $this->type->id,
            'directory' => $this->directory,
            'name' => $this->name,
            'version' => $this->version,
        ];
    }
}
