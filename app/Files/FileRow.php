<?php

declare(strict_types=1);

namespace App\Files;

use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Text\Amount;
use Carbon\CarbonImmutable;
use Cellarium\Core\File\Provenance;
use Cellarium\Core\File\Rights;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Path\WireName;

/** One row of a directory. */
final readonly class FileRow
{
    public RemotePath $path;

    /** @param  array<string, mixed>|null  $answer  what visitors got when it was asked for */
    public function __construct(
        private FilePlace $place,
        public FileEntry $entry,
        private ?Deployment $deployment,
        private ?array $answer,
    ) {
        $this->path = $place->at->child($entry->name);
    }

    public function url(): string
    {
        return $this->entry->isDirectory()
            ? $this->place->url($this->path)
            : $this->place->url(null, ['chosen' => $this->entry->name]);
    }

    public function side(): string
    {
        return $this->place->url(null, ['chosen' => $this->entry->name, 'side' => 1]);
    }

    /** A folder is told by the slash behind it. */
    public function label(): string
    {
        return $this->entry->name.($this->entry->isDirectory() ? '/' : '');
    }

    public function size(): string
    {
        return match ($this->entry->kind) {
            EntryKind::File => $this->entry->size === null ? 'not told' : Amount::bytes($this->entry->size),
            EntryKind::Directory => '',
            EntryKind::Link => 'link',
            EntryKind::Other => 'no file',
        };
    }

    public function changed(): string
    {
        if ($this->entry->modified === null) {
            return '';
        }
        $at = CarbonImmutable::createFromTimestamp($this->entry->modified, config('app.timezone'));

        return $at->isCurrentYear() ? $at->shown('j M H:i') : $at->shown('j M Y');
    }

    public function rights(): ?Rights
    {
        return $this->entry->mode === null ? null : new Rights($this->entry->mode, $this->entry->kind);
    }

    /** Where it comes from, in a word or two. */
    public function from(): string
    {
        if ($this->isBroughtByHand()) {
            return 'by hand here';
        }
        $bringer = $this->deployment?->package?->title() ?? $this->deployment?->title();

        return match ($this->entry->provenance) {
            Provenance::Package => $bringer ?? 'deployed',
            Provenance::ChangedSince => 'changed since '.($bringer ?? 'then'),
            Provenance::ByHand => 'by hand here',
            Provenance::NotOurs => 'not from here',
        };
    }

    public function fromTag(): string
    {
        return match ($this->entry->provenance) {
            Provenance::Package => $this->isBroughtByHand() ? 'kept' : 'proven',
            Provenance::ChangedSince => 'soon',
            Provenance::ByHand => 'kept',
            Provenance::NotOurs => 'plain',
        };
    }

    private function isBroughtByHand(): bool
    {
        return $this->entry->provenance === Provenance::Package && ! $this->entry->isDirectory()
            && $this->deployment?->kind === DeploymentKind::Files;
    }

    public function isText(): bool
    {
        return ! WireName::isHolding($this->entry->name);
    }

    public function visitors(): ?VisitorsAnswer
    {
        return $this->answer === null ? null : VisitorsAnswer::fromArray($this->answer);
    }
}
