<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;

/** Compares what shall be with what is. Pure: two manifests and a policy in, a plan out. */
final class Planner
{
    /** @throws PlanImpossible when a path is a file on one side and something else on the other */
    public static function plan(Manifest $target, Manifest $live, Policy $policy): Plan
    {
        $items = [];
        foreach ($target->all() as $wanted) {
            $items[] = self::wanted($wanted, $live->get($wanted->path), $policy);
        }
        $placeholders = array_flip($policy->placeholders);
        $ours = array_flip($policy->ours);
        foreach ($live->all() as $present) {
            $path = $present->path->toString();
            if ($target->get($path) !== null) {
                continue;
            }
            [$change, $why] = match (true) {
                $policy->exact => self::canBeSetAside($present)
                    ? [Change::SetAside, Why::NotInTarget]
                    : [Change::Keep, Why::NotOurs],
                isset($placeholders[$path]) => [Change::SetAside, Why::Placeholder],
                ($kept = $policy->keeps($present->path)) !== null => [Change::Keep, $kept],
                isset($ours[$path]) && $present->isFile() => [Change::SetAside, Why::FromLastDeployment],
                default => [Change::Keep, Why::NotOurs],
            };
            $items[] = new PlanItem(
                $present->path,
                $change,
                $why,
                null,
                $present,
            );
        }

        return new Plan($items);
    }

    private static function wanted(ManifestEntry $wanted, ?ManifestEntry $present, Policy $policy): PlanItem
    {
        if ($present === null) {
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
        if ($present->kind !== $wanted->kind) {
            throw PlanImpossible::becauseOfKinds($wanted, $present);
        }
        $kept = $policy->keeps($wanted->path);
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
            $change === Change::Keep ? null : self::mode($wanted, $present, $policy),
        );
    }

    /** What a server does not list cannot have been changed either, so a way back has nothing to set there. */
    private static function mode(ManifestEntry $wanted, ManifestEntry $present, Policy $policy): ?int
    {
        $isAsWanted = $wanted->mode === null || $wanted->mode === $present->mode;

        return $isAsWanted || ($policy->exact && $present->mode === null) ? null : $wanted->mode;
    }

    /** Links and devices are never removed: what they stand for was not backed up. */
    private static function canBeSetAside(ManifestEntry $entry): bool
    {
        return $entry->kind === EntryKind::File || $entry->kind === EntryKind::Directory;
    }
}
