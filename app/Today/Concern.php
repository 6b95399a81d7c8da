<?php

declare(strict_types=1);

namespace App\Today;

/** Something that needs a hand: reason, evidence, one action. */
final readonly class Concern
{
    /**
     * @param  ConcernKind  $kind  what is alike stands together and may be shown folded
     * @param  int  $weight  accounts or sites it stands for
     * @param  string|null  $page  of what it is about
     * @param  string  $method  GET for a link, POST for an action
     */
    public function __construct(
        public ConcernKind $kind,
        public Urgency $urgency,
        public string $title,
        public string $about,
        public string $evidence,
        public string $action,
        public string $url,
        public string $method = 'GET',
        public int $weight = 1,
        public ?string $page = null,
    ) {
    }
}
