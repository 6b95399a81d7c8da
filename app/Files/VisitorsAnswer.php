<?php

declare(strict_types=1);

namespace App\Files;

use Carbon\CarbonImmutable;
use Cellarium\Core\File\VisitorsGet;
use Cellarium\Core\Web\WebAnswer;

/** The last answer to visitors, as it is kept with a listing. */
final readonly class VisitorsAnswer
{
    private function __construct(
        public VisitorsGet $get,
        public int $status,
        public ?string $location,
        public ?string $error,
        public CarbonImmutable $at,
    ) {
    }

    public static function fromAnswer(VisitorsGet $get, WebAnswer $answer): self
    {
        return new self($get, $answer->status, $answer->location, $answer->error, CarbonImmutable::now());
    }

    public function words(): string
    {
        return $this->get->words($this->status);
    }

    /** What there is to say beyond that; null where it says all. */
    public function more(): ?string
    {
        return match (true) {
            $this->location !== null => "Sent on to $this->location",
            $this->error !== null => $this->error,
            $this->get === VisitorsGet::ItsSource => 'The web server shows the program instead of running it; '
                .'passwords in it can be read by everyone.',
            $this->get === VisitorsGet::Exposed => 'Whoever knows or guesses the address has all that is in it.',
            $this->get === VisitorsGet::Listing => 'There is no start page in it, and everyone sees what lies there.',
            default => null,
        };
    }

    public function tone(): string
    {
        return match (true) {
            $this->get->isBad() => 'is-now-text',
            $this->get->isDoubtful() => 'is-soon-text',
            default => '',
        };
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'get' => $this->get->value,
            'status' => $this->status,
            'location' => $this->location,
            'error' => $this->error,
            'at' => $this->at->getTimestamp(),
        ];
    }

    /** @param  array<string, mixed>  $kept */
    public static function fromArray(array $kept): self
    {
        return new self(
            VisitorsGet::from($kept['get']),
            $kept['status'],
            $kept['location'],
            $kept['error'],
            CarbonImmutable::createFromTimestamp($kept['at'], config('app.timezone')),
        );
    }
}
