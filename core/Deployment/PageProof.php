<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Json\JsonFields;

/** The proof of one address: it answers with the bytes that belong there, or what it answers with. */
final readonly class PageProof
{
    /**
     * @param  bool|null  $matches  null where bytes cannot be compared, because the server runs the file
     * @param  bool  $gone  whether the address should no longer show what was sent there; $matches then says that
     *     it does not
     * @param  string|null  $why  what tells why it does not show what it should
     * @param  ModeMend|null  $mend  what would let the web server in, where a mode keeps it out
     * @param  string|null  $sha256  of what it showed
     * @param  bool  $fits  whether it is sent as the kind of content it is, see ContentKind
     * @param  string|null  $at  the address of the host that was asked, where the domain does not lead there yet
     */
    public function __construct(
        public string $url,
        public int $status,
        public ?bool $matches,
        public ?string $error = null,
        public ?string $at = null,
        public bool $gone = false,
        public ?string $why = null,
        public ?string $sha256 = null,
        public ?ModeMend $mend = null,
        public bool $fits = true,
    ) {
    }

    /** @param  bool  $stillThere  whether the answer is what should be gone */
    public static function ofGone(string $url, int $status, bool $stillThere, ?string $error, ?string $at): self
    {
        return new self($url, $status, ! ($status === 200 && $stillThere), $error, $at, true);
    }

    public function holds(): bool
    {
        return $this->gone
            ? $this->error === null && $this->matches !== false
            : $this->status === 200 && $this->matches !== false && $this->fits;
    }

    public function sentence(): string
    {
        return match (true) {
            $this->error !== null => "$this->url did not answer: $this->error",
            $this->gone => $this->matches === false
                ? "$this->url still shows what was taken away"
                : "$this->url no longer shows what was sent",
            ! $this->fits => "$this->url shows what was sent, but $this->why",
            $this->why !== null && ! $this->holds() => "$this->url answered with status $this->status: $this->why",
            $this->status === 404 => "$this->url was not found: the document root may be another directory",
            $this->status === 403 => "$this->url is forbidden: the permissions may keep the web server out",
            $this->status !== 200 => "$this->url answered with status $this->status",
            $this->matches === false => "$this->url does not show the bytes that were sent: a cache, or another site, "
                .'may stand in between',
            $this->matches === null => "$this->url answers"
                .($this->at === null ? '' : ", asked of the host's own address $this->at"),
            $this->at !== null => "$this->url shows what was sent, asked of the host's own "
                ."address $this->at; the domain does not lead there yet",
            default => "$this->url shows what was sent",
        };
    }

    /**
     * @return array{
     *     url: string,
     *     status: int,
     *     matches: bool|null,
     *     error: string|null,
     *     at: string|null,
     *     gone: bool,
     *     why: string|null,
     *     fits: bool,
     * }
     */
    public function toArray(): array
    {
        return [
            'url' => $this->url,
            'status' => $this->status,
            'matches' => $this->matches,
            'error' => $this->error,
            'at' => $this->at,
            'gone' => $this->gone,
            'why' => $this->why,
            'fits' => $this->fits,
        ];
    }

    /** @throws \UnexpectedValueException for anything else than toArray() gives */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('url'),
            $fields->number('status'),
            $fields->has('matches') ? $fields->flag('matches') : null,
            $fields->textOrNull('error'),
            $fields->textOrNull('at'),
            $fields->flag('gone'),
            $fields->textOrNull('why'),
            fits: ! $fields->has('fits') || $fields->flag('fits'),
        );
    }
}
