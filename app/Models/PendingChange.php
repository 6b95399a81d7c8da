<?php

declare(strict_types=1);

namespace App\Models;

use Carbon\CarbonImmutable;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\RemotePath;

/**
 * A change wanted of an FTP user, written down before anybody is asked for it, until a proof has shown what did become
 * of it. Passwords are not in it.
 */
final readonly class PendingChange
{
    /**
     * @param  array<string, string|int|null>  $facts  what the action needs
     * @param  bool  $asked  whether the host has answered that it did it
     * @param  int  $tries  how often it was looked what became of it
     */
    private function __construct(
        public PendingAction $action,
        private array $facts = [],
        public bool $asked = false,
        public int $tries = 0,
    ) {
    }

    /** @param  string  $name  the short name; the host puts something around it */
    public static function create(string $name): self
    {
        return new self(PendingAction::Create, ['name' => $name]);
    }

    public static function renew(): self
    {
        return new self(PendingAction::Renew);
    }

    /**
     * @param  RemotePath|null  $directory  null where it stays
     * @param  int|null  $spaceLimit  bytes, null for no limit
     */
    public static function change(?RemotePath $directory, bool $setsSpace, ?int $spaceLimit): self
    {
        return new self(
            PendingAction::Change,
            ($directory === null ? [] : ['directory' => $directory->toString()])
                + ($setsSpace ? ['space_limit' => $spaceLimit] : []),
        );
    }

    public static function reopen(Closing $ends, ?CarbonImmutable $closesAt, string $endsReason): self
    {
        return new self(PendingAction::Reopen, [
            'ends' => $ends->value,
            'closes_at' => $closesAt?->toIso8601String(),
            'ends_reason' => $endsReason,
        ]);
    }

    public static function close(string $why): self
    {
        return new self(PendingAction::Close, ['why' => $why]);
    }

    public static function remove(): self
    {
        return new self(PendingAction::Remove);
    }

    public function withAnswer(): self
    {
        return new self($this->action, $this->facts, true, $this->tries);
    }

    public function withAnotherTry(): self
    {
        return new self($this->action, $this->facts, $this->asked, $this->tries + 1);
    }

    /** The short name of one to be created. */
    public function name(): string
    {
        return (string) ($this->facts['name'] ?? '');
    }

    /** Where it is to land; null where that stays. */
    public function directory(): ?RemotePath
    {
        return isset($this->facts['directory']) ? RemotePath::fromString((string) $this->facts['directory']) : null;
    }

    public function setsSpace(): bool
    {
        return array_key_exists('space_limit', $this->facts);
    }

    /** @return int|null bytes; null for no limit, see setsSpace() */
    public function spaceLimit(): ?int
    {
        return isset($this->facts['space_limit']) ? (int) $this->facts['space_limit'] : null;
    }

    /** Why it is closed, in words. */
    public function why(): string
    {
        return (string) ($this->facts['why'] ?? 'by hand');
    }

    /** @return array<string, mixed> columns of the FTP user once this is true */
    public function adopted(): array
    {
        return ($this->directory() === null ? [] : ['directory' => $this->directory()->toString()])
            + ($this->setsSpace() ? ['space_limit' => $this->spaceLimit()] : [])
            + ($this->action !== PendingAction::Reopen ? [] : [
                'ends' => Closing::from((string) $this->facts['ends']),
                'closes_at' => isset($this->facts['closes_at'])
                    ? CarbonImmutable::parse((string) $this->facts['closes_at'])
                    : null,
                'ends_reason' => (string) $this->facts['ends_reason'],
                'closed_at' => null,
                'refusal_proven_at' => null,
                'used_at' => now(),
            ]);
    }

    public function toJson(): string
    {
        return json_encode([
            'action' => $this->action->value,
            'facts' => $this->facts,
            'asked' => $this->asked,
            'tries' => $this->tries,
        ], JSON_THROW_ON_ERROR);
    }

    /** @throws \UnexpectedValueException when it is not what toJson() made */
    public static function fromJson(string $json): self
    {
        $fields = JsonFields::fromJson($json);
        $facts = $fields->fields('facts');
        $read = [];
        foreach ($facts->keys() as $key) {
            $read[$key] = $key === 'space_limit' ? $facts->numberOrNull($key) : $facts->textOrNull($key);
        }

        return new self(
            PendingAction::from($fields->text('action')),
            $read,
            $fields->flag('asked'),
            $fields->number('tries'),
        );
    }
}
