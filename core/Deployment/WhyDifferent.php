<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\DocumentRoot\PlaceholderPage;
use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Manifest\PageNames;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Web\WebAnswer;

/** Why an address does not show what was sent there, and what would mend it, from what the server lists. */
final class WhyDifferent
{
    /** @var array<string, true>|null hashes of all that is there or was before, once they are asked for */
    private ?array $known = null;

    private const OTHERS_READ = 0004;

    private const OTHERS_PASS = 0001;

    /**
     * @param  Manifest  $after  what the server holds now
     * @param  Manifest|null  $before  what it held before, hashes known
     */
    public function __construct(private readonly Manifest $after, private readonly ?Manifest $before)
    {
    }

    /** Part of a sentence; null where nothing tells. */
    public function explain(WebAnswer $answer, ManifestEntry $entry): ?string
    {
        return match (true) {
            $answer->status >= 300 && $answer->status < 400 => $answer->location === null
                ? null
                : "it leads on to $answer->location",
            $answer->status === 403 => $this->refused($entry->path),
            $answer->status === 404 => $this->notFound($entry->path),
            $answer->status === 200 => $this->other($answer, $entry->path),
            default => null,
        };
    }

    /**
     * Part of a sentence where a page shows another file of the site that is known by its bytes, or the text of a
     * program; null where it does not. What a program says is not known, and this is not what it says.
     */
    public function instead(WebAnswer $answer, ManifestEntry $entry): ?string
    {
        if ($answer->status !== 200) {
            return null;
        }
        if (PageNames::runs($entry->path) && $answer->sha256 === $entry->sha256 && str_contains($answer->head, '<?')) {
            return 'the web server shows the text of the program instead of running it; have it run PHP for this site';
        }
        if (! str_ends_with($answer->url, '/') || $answer->sha256 === $entry->sha256) {
            return null;
        }
        $directory = (string) $entry->path->parent();
        foreach ($this->after->files() as $file) {
            if (
                $file->sha256 === $answer->sha256
                && (string) $file->path->parent() === $directory
                && PageNames::isPage($file->path)
            ) {
                return 'it shows '.$file->path->name().', which this server puts before '.$entry->path->name()
                    .': set it aside, or have '.$entry->path->name().' come first';
            }
        }

        return null;
    }

    /** What would let the web server in where it was kept out; null where no mode keeps it out. */
    public function mend(WebAnswer $answer, ManifestEntry $entry): ?ModeMend
    {
        return $answer->status === 403 ? $this->keptOutBy($entry->path) : null;
    }

    private function keptOutBy(RelativePath $path): ?ModeMend
    {
        $mode = $this->after->get($path)?->mode;
        if ($mode !== null && ($mode & self::OTHERS_READ) === 0) {
            return new ModeMend($path->toString(), $mode | self::OTHERS_READ);
        }
        foreach ($path->ancestors() as $above) {
            $mode = $this->after->get($above)?->mode;
            if ($mode !== null && ($mode & self::OTHERS_PASS) === 0) {
                return new ModeMend($above->toString(), $mode | self::OTHERS_PASS);
            }
        }

        return null;
    }

    private function refused(RelativePath $path): ?string
    {
        $mend = $this->keptOutBy($path);
        if ($mend === null) {
            return null;
        }
        $mode = (int) $this->after->get($mend->path)?->mode;

        return $mend->path === $path->toString()
            ? sprintf(
                'its mode %04o keeps the web server out; %04o is the smallest that lets it read',
                $mode,
                $mend->mode,
            )
            : sprintf(
                'the directory %s has mode %04o and keeps the web server out; %04o is the smallest that lets it in',
                $mend->path,
                $mode,
                $mend->mode,
            );
    }

    private function notFound(RelativePath $path): string
    {
        if ($this->after->get($path) !== null) {
            return "$path lies on the server, so the domain shows another directory";
        }
        $wanted = mb_strtolower($path->toString());
        foreach ($this->after->files() as $file) {
            if (mb_strtolower($file->path->toString()) === $wanted) {
                return "the server has it as $file->path, in other capitals";
            }
        }

        return "$path is not on the server";
    }

    /** Whether it is a file of this site, as it is now or was before. */
    private function isKnown(WebAnswer $answer): bool
    {
        if ($this->known === null) {
            $this->known = [];
            foreach ([$this->after, $this->before] as $side) {
                $this->known += array_fill_keys(array_column($side?->files() ?? [], 'sha256'), true);
            }
        }

        return isset($this->known[$answer->sha256]);
    }

    private function other(WebAnswer $answer, RelativePath $path): ?string
    {
        if (LiveQuestions::isListing($answer->head)) {
            return 'it is a listing of the directory: the web server knows no start page there';
        }
        if ((new PlaceholderPage)->recognises($answer->head)) {
            return 'it is the placeholder of the host: the domain shows another directory, or nothing has been put '
                .'there yet';
        }
        if ($this->before?->get($path)?->sha256 !== $answer->sha256) {
            return $this->isKnown($answer) ? null : 'it does not show the bytes that were sent, and nothing that is '
                .'there or was before has these: another site answers, or something on the way changes pages';
        }
        $age = $answer->headers['age'] ?? '';

        return preg_match('/\A\d{1,9}\z/', $age) === 1
            ? "a cache shows what was there before, fetched $age s ago; empty it in the panel of the host, or wait "
                .'until it lets go'
            : 'it shows what was there before: a cache stands in between, or another server answers';
    }
}
