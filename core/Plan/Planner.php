<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Path\RelativePath;

/**
 * Compares what shall be with what is, and both with what the last deployment left where that is known. Pure:
 * manifests, a policy and answers in, a plan out.
 */
final readonly class Planner
{
    /** @var array<string, int> paths as keys */
    private array $placeholders;

    /** @var array<string, int> */
    private array $ours;

    /** @var array<string, int> what is asked although all else is as the target has it */
    private array $asked;

    /** @var array<string, true> directories that go, were it not for what is asked or stays in them */
    private array $needed;

    /** @var array<string, string> paths of the target that the server has in other capitals, with what it has */
    private array $otherwiseWritten;

    /** @var array<string, int|string> the same the other way round */
    private array $wantedOf;

    /** @var array<string, Conflict> start pages on the server beside those that are sent */
    private array $contests;

    private function __construct(
        private Manifest $target,
        private Manifest $live,
        private Policy $policy,
        private ?Manifest $left,
        private Answers $answers,
    ) {
        $this->placeholders = array_flip($policy->placeholders);
        $this->ours = array_flip($policy->ours);
        $this->otherwiseWritten = $policy->exact ? [] : $this->inOtherCapitals();
        $this->wantedOf = array_flip($this->otherwiseWritten);
        $this->asked = array_flip($policy->asks);
        $this->needed = $this->stillNeeded();
        $this->contests = $policy->exact
            ? []
            : (new StartPageContest($policy->startPages, $policy->served))->between($target, $live);
    }

    /**
     * @param  Manifest|null  $left  what the last deployment left, hashes known; null where nothing is a question
     *
     * @throws PlanImpossible when a path is a file on one side and something else on the other
     */
    public static function plan(
        Manifest $target,
        Manifest $live,
        Policy $policy,
        ?Manifest $left = null,
        ?Answers $answers = null,
    ): Plan {
        $planner = new self(
            $target,
            $live,
            $policy,
            $policy->exact && $policy->asks === [] ? null : $left,
            $answers ?? Answers::none(),
        );

        return new Plan($planner->items());
    }

    /** @return \Generator<int, PlanItem> */
    private function items(): \Generator
    {
        yield from $this->wanted();
        yield from $this->found();
    }

    /** @return \Generator<int, PlanItem> of what shall be there */
    private function wanted(): \Generator
    {
        foreach ($this->target->all() as $wanted) {
            $present = $this->live->get($wanted->path);
            if ($present !== null && $present->kind !== $wanted->kind) {
                throw PlanImpossible::becauseOfKinds($wanted, $present);
            }
            $kept = $this->policy->keeps($wanted->path);
            $conflict = $kept === null && $wanted->isFile() ? $this->conflict($wanted, $present) : null;
            if ($conflict !== null) {
                yield from $this->answered($conflict, $wanted, $present);
            } else {
                yield $present === null ? $this->added($wanted) : $this->compared($wanted, $present, $kept);
            }
        }
    }

    /** @return \Generator<int, PlanItem> of what is there beside it */
    private function found(): \Generator
    {
        foreach ($this->live->all() as $present) {
            $path = $present->path->toString();
            if ($this->target->get($path) !== null) {
                continue;
            }
            if ($this->isTakenInOtherCapitals($present)) {
                yield new PlanItem($present->path, Change::SetAside, Why::Answered, null, $present);

                continue;
            }
            $kept = $this->policy->keeps($present->path);
            $isOurs = isset($this->ours[$path]) && $present->isFile();
            $before = $this->left?->get($path);
            $changed = $isOurs && $kept === null && $before !== null && $before->differsFrom($present) === true;
            if (($changed && ! isset($this->placeholders[$path])) || isset($this->asked[$path])) {
                yield from $this->answered(Conflict::ChangedLive, null, $present);

                continue;
            }
            if (isset($this->contests[$path]) && ! $isOurs && ! isset($this->placeholders[$path])) {
                yield from $this->answered($this->contests[$path], null, $present);

                continue;
            }
            [$change, $why] = match (true) {
                $this->policy->exact => self::canBeSetAside($present) && ! isset($this->needed[$path])
                    ? [Change::SetAside, Why::NotInTarget]
                    : [Change::Keep, Why::NotOurs],
                isset($this->placeholders[$path]) => [Change::SetAside, Why::Placeholder],
                $kept !== null => [Change::Keep, $kept],
                $isOurs => [Change::SetAside, Why::FromLastDeployment],
                default => [Change::Keep, Why::NotOurs],
            };
            yield new PlanItem($present->path, $change, $why, null, $present, deployed: $before);
        }
    }

    /**
     * What goes anyway, and what is kept whatever anybody says, is no question.
     *
     * @return array<string, string>
     */
    private function inOtherCapitals(): array
    {
        $wanted = [];
        foreach ($this->target->files() as $file) {
            $path = $file->path->toString();
            $this->live->get($path) === null && $wanted[mb_strtolower($path)] = $path;
        }
        $found = [];
        foreach ($wanted === [] ? [] : $this->live->files() as $file) {
            $path = $file->path->toString();
            $other = $wanted[mb_strtolower($path)] ?? null;
            if (
                $other !== null
                && $this->target->get($path) === null
                && ! isset($this->placeholders[$path])
                && ! isset($this->ours[$path])
                && $this->policy->keeps($file->path) === null
            ) {
                $found[$other] = $path;
            }
        }

        return $found;
    }

    /** Whether it was answered that the package's file counts, which differs from this one in capitals only. */
    private function isTakenInOtherCapitals(ManifestEntry $present): bool
    {
        $wanted = $this->wantedOf[$present->path->toString()] ?? null;

        return $wanted !== null && $this->answers->to(RelativePath::fromString((string) $wanted)) === Choice::Ours;
    }

    /** @return array<string, true> */
    private function stillNeeded(): array
    {
        $needed = [];
        foreach (array_keys($this->asked) as $path) {
            $asked = RelativePath::fromString((string) $path);
            $goes = $this->answers->to($asked) === Choice::Ours || $this->live->get((string) $path) === null;
            foreach ($goes ? [] : $asked->ancestors() as $above) {
                $needed[$above->toString()] = true;
            }
        }

        return $needed;
    }

    /** What was done on the server since, where the package would undo it; null where nothing was, or nobody knows. */
    private function conflict(ManifestEntry $wanted, ?ManifestEntry $present): ?Conflict
    {
        if (isset($this->otherwiseWritten[$wanted->path->toString()])) {
            return Conflict::OtherCase;
        }
        $isAsked = isset($this->asked[$wanted->path->toString()]);
        if ($this->left === null || ($this->policy->exact && ! $isAsked)) {
            return null;
        }
        $before = $this->left->get($wanted->path);
        if ($present === null) {
            return $before?->isFile() === true ? Conflict::RemovedLive : null;
        }
        // What is known to have been changed is asked, whatever it may hold now.
        $mayBeSame = ! $isAsked && $wanted->size === $present->size && $present->sha256 === null;
        if ($wanted->sha256 === null || $wanted->sha256 === $present->sha256 || $mayBeSame) {
            return null;
        }

        return match (true) {
            $before === null => Conflict::AddedLive,
            $isAsked, $before->differsFrom($present) === true => Conflict::ChangedLive,
            default => null,
        };
    }

    /** @return \Generator<int, PlanItem> */
    private function answered(Conflict $conflict, ?ManifestEntry $wanted, ?ManifestEntry $present): \Generator
    {
        $path = ($wanted ?? $present)->path ?? throw new \LogicException('A question is about something.');
        $choice = $this->choice($conflict, $path, $wanted, $present);
        $change = match ($choice) {
            null => $conflict->mustBeAnswered() ? Change::Asked : Change::Keep,
            Choice::Theirs => $present === null ? Change::LeftAway : Change::Keep,
            default => match (true) {
                $present === null => Change::Add,
                $wanted === null => Change::SetAside,
                default => Change::Replace,
            },
        };
        yield new PlanItem(
            $path,
            $change,
            match (true) {
                $choice === null => self::asking($conflict),
                $choice === Choice::Both => Why::BothKept,
                default => Why::Answered,
            },
            $wanted,
            $present,
            $change->touches() && $wanted !== null && $present !== null
                ? $this->mode($wanted, $present)
                : null,
            $this->left?->get($path),
            $conflict,
        );
        if ($choice === Choice::Both && $wanted !== null && $present !== null) {
            $beside = BesideName::forFile($present, $this->target, $this->live);
            yield new PlanItem(
                $beside,
                Change::Add,
                Why::TheirsBeside,
                $present->at($beside),
                null,
                $present->hasUsualMode() ? null : $present->mode,
            );
        }
    }

    private static function asking(Conflict $conflict): Why
    {
        return match ($conflict) {
            Conflict::OtherCase => Why::OtherCase,
            Conflict::StartPageWins => Why::StartPageWins,
            Conflict::StartPageBeside => Why::StartPageBeside,
            default => Why::ChangedSince,
        };
    }

    private function choice(
        Conflict $conflict,
        RelativePath $path,
        ?ManifestEntry $wanted,
        ?ManifestEntry $present,
    ): ?Choice {
        // What may stay, and what the site keeps whatever is sent, goes only by its own name.
        $itself = ! $conflict->mustBeAnswered()
            || ($conflict === Conflict::StartPageWins && $this->policy->keeps($path) !== null);
        $choice = $itself ? $this->answers->toItself($path) : $this->answers->to($path);
        if ($choice === Choice::Newer) {
            return match (true) {
                $wanted?->modified === null || $present?->modified === null => null,
                $wanted->modified === $present->modified => null,
                default => $wanted->modified > $present->modified ? Choice::Ours : Choice::Theirs,
            };
        }

        return $choice === Choice::Both && $wanted === null ? Choice::Theirs : $choice;
    }

    private function added(ManifestEntry $wanted): PlanItem
    {
        if ($wanted->isFile() && $wanted->sha256 === null) {
            throw PlanImpossible::becauseUnknown($wanted);
        }

        return new PlanItem(
            $wanted->path,
            Change::Add,
            Why::InPackage,
            $wanted,
            null,
            $wanted->hasUsualMode() ? null : $wanted->mode,
        );
    }

    private function compared(ManifestEntry $wanted, ManifestEntry $present, ?Why $kept): PlanItem
    {
        [$change, $why] = match (true) {
            ! $wanted->isFile() => [Change::Same, Why::InPackage],
            $kept !== null => [Change::Keep, $kept],
            $wanted->sha256 === null => $wanted->looksLike($present)
                ? [Change::Same, Why::InPackage]
                : throw PlanImpossible::becauseUnknown($wanted),
            $wanted->size !== $present->size => [Change::Replace, Why::InPackage],
            $present->sha256 === null => [Change::Replace, Why::NotYetCompared],
            $wanted->sha256 === $present->sha256 => [Change::Same, Why::InPackage],
            default => [Change::Replace, Why::InPackage],
        };

        return new PlanItem(
            $wanted->path,
            $change,
            $why,
            $wanted,
            $present,
            $change === Change::Keep ? null : $this->mode($wanted, $present),
            $this->left?->get($wanted->path),
        );
    }

    /** What a server does not list cannot have been changed either, so a way back has nothing to set there. */
    private function mode(ManifestEntry $wanted, ManifestEntry $present): ?int
    {
        $isAsWanted = $wanted->mode === null || $wanted->mode === $present->mode;

        return $isAsWanted || ($this->policy->exact && $present->mode === null) ? null : $wanted->mode;
    }

    /** Links and devices are never removed: what they stand for was not backed up. */
    private static function canBeSetAside(ManifestEntry $entry): bool
    {
        return $entry->kind === EntryKind::File || $entry->kind === EntryKind::Directory;
    }
}
