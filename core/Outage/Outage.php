<?php

declare(strict_types=1);

namespace Cellarium\Core\Outage;

use Cellarium\Core\Json\JsonFields;

/**
 * For how long visitors found no site, from what an address answered while something was replaced behind it.
 *
 * An outage begins as the first question is asked that finds no site, and ends as the next one that finds it is
 * answered: that is the longest it can have been, between two questions. An address that did not answer before either
 * was out already, and counts only from when it first answered.
 */
final readonly class Outage
{
    /**
     * @param  int  $milliseconds  at the most, of all that came after the first answer
     * @param  int  $asked  how often
     * @param  int  $unanswered  how often no site was found, after the first answer
     * @param  bool  $wasOut  whether no site was found before anything was replaced
     * @param  bool  $isOut  whether the last question found none
     * @param  bool  $isWhole  false where nobody asked for a while, since what asked was killed
     * @param  string|null  $words  what the first that found none was answered
     */
    public function __construct(
        public int $milliseconds,
        public int $asked,
        public int $unanswered,
        public bool $wasOut = false,
        public bool $isOut = false,
        public bool $isWhole = true,
        public ?string $words = null,
    ) {
    }

    /** @param  list<ProbeResult>  $answers  in the order they were asked */
    public static function fromAnswers(array $answers, bool $isWhole = true): self
    {
        [$milliseconds, $unanswered, $since, $hasAnswered, $words, $last] = [0, 0, null, false, null, null];
        foreach ($answers as $answer) {
            $last = $answer;
            if ($answer->findsASite()) {
                $milliseconds += $since === null ? 0 : $answer->ended - $since;
                [$since, $hasAnswered] = [null, true];
            } elseif ($hasAnswered) {
                $since ??= $answer->begun;
                $words ??= $answer->words();
                $unanswered++;
            }
        }
        $milliseconds += $since === null ? 0 : $last->ended - $since;

        return new self(
            $milliseconds,
            count($answers),
            $unanswered,
            $answers !== [] && ! $answers[0]->findsASite(),
            $last?->findsASite() === false,
            $isWhole,
            $words ?? ($hasAnswered ? null : $last?->words()),
        );
    }

    /** Where what asked was killed before it could tell. */
    public static function notMeasured(): self
    {
        return new self(0, 0, 0, isWhole: false);
    }

    /** One after another, as where a run was taken up again: nobody asked in between. */
    public function then(self $later): self
    {
        return new self(
            $this->milliseconds + $later->milliseconds,
            $this->asked + $later->asked,
            $this->unanswered + $later->unanswered,
            $this->wasOut,
            $later->isOut,
            false,
            $this->words ?? $later->words,
        );
    }

    /** Also that it was not measured, or not all the time. */
    public function sentence(): string
    {
        $seconds = number_format($this->milliseconds / 1000, 1, '.', '');
        $words = match (true) {
            $this->asked === 0 => '',
            $this->wasOut && $this->isOut => "no site was found, neither before nor after: $this->words",
            $this->wasOut => "no site was found before; $seconds s since it first answered",
            $this->unanswered === 0 => "0 s: asked $this->asked times, a site was there each time",
            default => "at most $seconds s: $this->unanswered of $this->asked times no site was found, "
                ."first $this->words",
        };

        return $words
            .($this->isOut && ! $this->wasOut ? ', and none at the end' : '')
            .match (true) {
                $this->isWhole => '',
                $this->asked === 0 => 'not measured: what asked was cut off',
                default => '; not measured for a while, since the run was cut off',
            };
    }

    /** @return array<string, int|bool|string|null> */
    public function toArray(): array
    {
        return [
            'milliseconds' => $this->milliseconds,
            'asked' => $this->asked,
            'unanswered' => $this->unanswered,
            'was_out' => $this->wasOut,
            'is_out' => $this->isOut,
            'is_whole' => $this->isWhole,
            'words' => $this->words,
        ];
    }

    /** @throws \UnexpectedValueException for anything else than toArray() gives */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->number('milliseconds'),
            $fields->number('asked'),
            $fields->number('unanswered'),
            $fields->flag('was_out'),
            $fields->flag('is_out'),
            $fields->flag('is_whole'),
            $fields->textOrNull('words'),
        );
    }
}
