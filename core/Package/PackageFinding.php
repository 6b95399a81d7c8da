<?php

declare(strict_types=1);

namespace Cellarium\Core\Package;

use Cellarium\Core\Json\JsonFields;

/** Something about a package that a person should know before it goes anywhere. */
final readonly class PackageFinding
{
    /**
     * @param  string  $code  stable, see docs/findings.md
     * @param  string  $message  a sentence; what it quotes from the package is hostile text
     * @param  string|null  $path  of the file it is about
     * @param  int|null  $line  in that file, from 1
     * @param  string|null  $suggestion  what may have been meant, a path
     */
    public function __construct(
        public string $code,
        public Severity $severity,
        public string $message,
        public ?string $path = null,
        public ?int $line = null,
        public ?string $suggestion = null,
    ) {
    }

    /** Whether its message goes on from the name of the file; else it is a sentence of its own. */
    public function isAboutAFile(): bool
    {
        return $this->path !== null && preg_match('/^(?:reference|secret|archive|name)_/', $this->code) === 1;
    }

    public function stops(): bool
    {
        return $this->severity === Severity::Stop;
    }

    /**
     * @return array{
     *     code: string,
     *     severity: string,
     *     path: string|null,
     *     line: int|null,
     *     message: string,
     *     suggestion: string|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'code' => $this->code,
            'severity' => $this->severity->value,
            'path' => $this->path,
            'line' => $this->line,
            'message' => $this->message,
            'suggestion' => $this->suggestion,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('code'),
            Severity::from($fields->text('severity')),
            $fields->text('message'),
            $fields->textOrNull('path'),
            $fields->numberOrNull('line'),
            $fields->textOrNull('suggestion'),
        );
    }
}
