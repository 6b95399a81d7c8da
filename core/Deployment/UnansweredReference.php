<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Json\JsonFields;

/** Something that a changed page asks for within its site, and that visitors do not get. */
final readonly class UnansweredReference
{
    /**
     * @param  string  $page  path of the file that asks, from where the run begins
     * @param  int  $line  in it, from 1
     * @param  string  $asks  as it is written there
     * @param  int|null  $status  that its address answered, 0 where nothing came; null where it has no address
     */
    public function __construct(
        public string $page,
        public int $line,
        public string $asks,
        public ?int $status,
    ) {
    }

    public function sentence(): string
    {
        return "$this->page, line $this->line, asks for $this->asks: ".match (true) {
            $this->status === null => 'a file on the computer of whoever wrote it, which no visitor has',
            $this->status === 0 => 'it does not answer',
            in_array($this->status, [404, 410], true) => "it is not there (status $this->status)",
            in_array($this->status, [401, 403], true) => "visitors are refused (status $this->status)",
            default => "it answers with status $this->status",
        };
    }

    /** @return array{page: string, line: int, asks: string, status: int|null} */
    public function toArray(): array
    {
        return [
            'page' => $this->page,
            'line' => $this->line,
            'asks' => $this->asks,
            'status' => $this->status,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('page'),
            $fields->number('line'),
            $fields->text('asks'),
            $fields->numberOrNull('status'),
        );
    }
}
