<?php

declare(strict_types=1);

namespace App\Files;

use Cellarium\Core\File\FileChange;
use Cellarium\Core\File\FileChangeKind;
use Cellarium\Core\File\Rights;

/** A step of a change by hand in words. */
final class StepWords
{
    public static function forStep(FileChange $step): string
    {
        return match ($step->kind) {
            FileChangeKind::Save => $step->seen === null ? 'put' : 'save',
            FileChangeKind::MakeDirectory => 'make the folder',
            FileChangeKind::RemoveDirectory => 'remove the empty folder',
            FileChangeKind::Rename => 'rename or move',
            FileChangeKind::Copy => 'copy',
            FileChangeKind::SetAside => 'hold here and take away there',
            FileChangeKind::SetMode => 'set permissions from '.($step->seen?->mode === null
                ? 'what they are'
                : Rights::digits($step->seen->mode)).' to '.Rights::digits((int) $step->mode),
        };
    }
}
