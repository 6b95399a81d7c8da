<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Json\JsonFields;

/** Something about a package that a person should know before it goes anywhere. */
final readonly class PackageFinding
{
    /**
     * @param  string  $message  a sentence, or one that goes on from the path; what it quotes from the package is
     *     hostile text
     * @param  string|null  $path  of the file it is about
     * @param  int|null  $line  in that file, from 1
     * @param  string|null  $suggestion  what may have been meant, a path
     * @param  int|null  $offset  in that file, in bytes, of what a mend would change
     */
    public function __construct(
        public FindingCode $code,
        public Severity $severity,
        public string $message,
        public ?string $path = null,
        public ?int $line = null,
        public ?string $suggestion = null,
        public ?int $offset = null,
    ) {
    }

    /** Whether its message goes on from the name of the file; else it is a sentence of its own. */
    public function isAboutAFile(): bool
    {
        return $this->path !== null && $this->code->goesOnFromAFile();
    }

    public function stops(): bool
    {
        return $this->severity === Severity::Stop;
    }

    public function as(Severity $severity): self
    {
        return new self(
            $this->code,
            $severity,
            $this->message,
            $this->path,
            $this->line,
            $this->suggestion,
            $this->offset,
        );
    }

    /** What is the same in another version, wherever in the file it stands there. */
    public function sameAsBefore(): string
    {
        return "{$this->code->value}\0$this->path\0$this->message";
    }

    /**
     * @return array{
     *     code: string,
     *     severity: string,
     *     path: string|null,
     *     line: int|null,
     *     message: string,
     *     suggestion: string|null,
     *     offset: int|null,
     * }
     */
    public function toArray(): array
    {
        return [
            'code' => $this->code->value,
            'severity' => $this->severity->value,
            'path' => $this->path,
            'line' => $this->line,
            'message' => $this->message,
            'suggestion' => $this->suggestion,
            'offset' => $this->offset,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            FindingCode::from($fields->text('code')),
            Severity::from($fields->text('severity')),
            $fields->text('message'),
            $fields->textOrNull('path'),
            $fields->numberOrNull('line'),
            $fields->textOrNull('suggestion'),
            $fields->numberOrNull('offset'),
        );
    }
}
