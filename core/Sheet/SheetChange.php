<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Outage\Outage;

/** One change of a site. */
final readonly class SheetChange
{
    /**
     * @param  int  $at  Unix time at which it ended, or was found
     * @param  string  $site  domain
     * @param  string  $by  a person's name; "" where nobody here did it
     * @param  string  $outcome  in words, as "proven"
     * @param  bool  $isGood  whether the site is as it was meant to be since
     * @param  int  $added  files; the next two are files, too
     * @param  SheetBackup|null  $backup  null where none was taken, or it was let go of
     * @param  SheetProof|null  $proof  null where nothing was fetched
     * @param  Outage|null  $outage  null where it was not measured
     */
    public function __construct(
        public int $at,
        public string $site,
        public SheetKind $kind,
        public string $what,
        public string $by,
        public string $outcome,
        public bool $isGood,
        public int $added,
        public int $changed,
        public int $removed,
        public ?SheetBackup $backup = null,
        public ?SheetProof $proof = null,
        public ?Outage $outage = null,
    ) {
    }

    public function files(): string
    {
        $words = [];
        foreach (['new' => $this->added, 'changed' => $this->changed, 'removed' => $this->removed] as $word => $count) {
            $count === 0 || $words[] = "$count $word";
        }

        return implode(', ', $words);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'at' => SheetTime::text($this->at),
            'site' => $this->site,
            'kind' => $this->kind->value,
            'what' => $this->what,
            'by' => $this->by,
            'outcome' => $this->outcome,
            'good' => $this->isGood,
            'files' => ['new' => $this->added, 'changed' => $this->changed, 'removed' => $this->removed],
            'backup' => $this->backup?->toArray(),
            'proof' => $this->proof?->toArray(),
            'outage' => $this->outage?->toArray(),
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            SheetTime::read($fields, 'at'),
            $fields->text('site'),
            SheetKind::tryFrom($fields->text('kind'))
                ?? throw new \UnexpectedValueException('There is no such kind of change.'),
            $fields->text('what'),
            $fields->text('by'),
            $fields->text('outcome'),
            $fields->flag('good'),
            $fields->fields('files')->number('new'),
            $fields->fields('files')->number('changed'),
            $fields->fields('files')->number('removed'),
            $fields->has('backup') ? SheetBackup::fromFields($fields->fields('backup')) : null,
            $fields->has('proof') ? SheetProof::fromFields($fields->fields('proof')) : null,
            $fields->has('outage') ? Outage::fromFields($fields->fields('outage')) : null,
        );
    }
}
