<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Json\JsonFields;

/** Something about a package that a person should know before it goes anywhere. */
final readonly class PackageFinding
{
    /** @param  bool  $stops whether the package cannot be deployed as long as this stands */
    public function __construct(
        public string $code,
        public string $sentence,
        public bool $stops = false,
        public ?string $path = null,
    ) {
    }

    /** @return array{code: string, sentence: string, stops: bool, path: string|null} */
    public function toArray(): array
    {
        return [
            'code' => $this->code,
            'sentence' => $this->sentence,
            'stops' => $this->stops,
            'path' => $this->path,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('code'),
            $fields->text('sentence'),
            $fields->flag('stops'),
            $fields->textOrNull('path'),
        );
    }
}
