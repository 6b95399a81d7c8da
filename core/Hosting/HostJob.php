<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Json\JsonFields;

/** The progress of a job that the host does by itself. */
final readonly class HostJob
{
    /**
     * @param  int  $done  files done
     * @param  int  $total  of how many; 0 while the host does not know
     * @param  string|null  $message  why it failed
     * @param  list<string>  $refused  of a move: what was said against each, "" where it is done
     */
    private function __construct(
        public string $id,
        public HostJobState $state,
        public int $done,
        public int $total,
        public ?string $message,
        public array $refused,
    ) {
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('id'),
            HostJobState::tryFrom($fields->text('state'))
                ?? throw new \UnexpectedValueException('a state that is none'),
            $fields->number('done'),
            $fields->number('total'),
            $fields->textOrNull('message'),
            $fields->has('refused') ? $fields->texts('refused') : [],
        );
    }
}
