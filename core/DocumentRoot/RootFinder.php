<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteEntry;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Connection\RemoteReader;
use Cellarium\Core\Manifest\EntryKind;
use Cellarium\Core\Path\RemotePath;

/**
 * Scores the directories of an account as document roots of a site, by their names, contents, and the host's habits.
 */
final readonly class RootFinder
{
    private const USUAL_NAMES = [
        'public_html',
        'htdocs',
        'httpdocs',
        'www',
        'html',
        'web',
        'webroot',
        'wwwroot',
        'public',
        'docroot',
        'site',
    ];

    private const OTHER_NAMES = [
        'logs',
        'log',
        'mail',
        'tmp',
        'temp',
        'backup',
        'backups',
        'cgi-bin',
        'stats',
        'statistics',
        'private',
        'ssl',
        'conf',
        'etc',
        'cache',
        'uploads',
        'img',
        'images',
        'css',
        'js',
        'assets',
        'fonts',
        'node_modules',
        'vendor',
    ];

    private const SITE_FILES = ['.htaccess', 'robots.txt', 'favicon.ico', 'sitemap.xml', 'web.config', '.well-known'];

    /**
     * @param  list<string>  $startPages  the site's precedence
     * @param  list<string>  $habits  document roots proven in other accounts of the host, "{domain}" for the domain
     */
    public function __construct(
        private array $startPages,
        private array $habits,
        private PlaceholderPage $placeholder = new PlaceholderPage,
        private int $depth = 3,
        private int $mostListings = 60,
    ) {
    }

    /** A proven document root as a habit of its host. */
    public static function habit(RemotePath $root, string $domain): string
    {
        return str_ireplace($domain, '{domain}', $root->toString());
    }

    /**
     * @return list<RootCandidate> the best first, none that nothing speaks for
     *
     * @throws RemoteFailure
     */
    public function find(RemoteReader $remote, string $domain): array
    {
        $candidates = [];
        $queue = [RemotePath::root()];
        $listings = 0;
        while (($directory = array_shift($queue)) !== null && $listings < $this->mostListings) {
            $listings++;
            try {
                $entries = $remote->list($directory);
            } catch (RemoteFailure $failure) {
                if ($failure->reason === FailureReason::Forbidden && $directory->depth() > 0) {
                    continue; // What this login may not read, it cannot deploy to.
                }
                throw $failure;
            }
            $candidate = $this->weigh($remote, $directory, $entries, strtolower($domain));
            $candidate->score <= 0 ?: $candidates[] = $candidate;
            foreach ($entries as $entry) {
                if (
                    $entry->kind === EntryKind::Directory
                    && $directory->depth() < $this->depth
                    && ! str_starts_with($entry->name, '.')
                    && ! in_array(strtolower($entry->name), self::OTHER_NAMES, true)
                ) {
                    $queue[] = $directory->child($entry->name);
                }
            }
        }
        usort(
            $candidates,
            static fn (RootCandidate $a, RootCandidate $b): int => [$b->score, $a->directory->depth()] <=> [
                $a->score,
                $b->directory->depth(),
            ],
        );

        return array_slice($candidates, 0, 8);
    }

    /** @param  list<RemoteEntry>  $entries */
    private function weigh(RemoteReader $remote, RemotePath $directory, array $entries, string $domain): RootCandidate
    {
        $score = 0;
        $reasons = [];
        $add = static function (int $points, string $reason) use (&$score, &$reasons): void {
            $score += $points;
            $reasons[] = $reason;
        };
        $name = strtolower($directory->name());
        $bare = (string) preg_replace('/\Awww\./', '', $domain);
        in_array($name, self::USUAL_NAMES, true) && $add(30, "hosts often call it $name");
        in_array($name, [$bare, "www.$bare"], true) && $add(45, 'it is named after the domain');
        if (
            $name !== ''
            && str_contains($name, '.')
            && ! in_array($name, [$bare, "www.$bare"], true)
            && preg_match('/\A[a-z0-9-]+(\.[a-z0-9-]+)+\z/', $name) === 1
        ) {
            $add(-40, 'it is named after another domain');
        }
        $parent = $directory->depth() > 1 ? strtolower($directory->parent()->name()) : '';
        in_array($parent, [$bare, "www.$bare"], true)
            && in_array($name, self::USUAL_NAMES, true)
            && $add(25, 'it lies in a directory named after the domain');
        in_array(self::habit($directory, $bare), $this->habits, true)
            && $add(35, 'other accounts of this host have it in the same place');
        $this->contents($remote, $directory, $entries, $add);

        return new RootCandidate($directory, $score, $reasons);
    }

    /**
     * @param  list<RemoteEntry>  $entries
     * @param  \Closure(int, string): void  $add
     */
    private function contents(RemoteReader $remote, RemotePath $directory, array $entries, \Closure $add): void
    {
        $files = [];
        foreach ($entries as $entry) {
            $files[strtolower($entry->name)] = $entry;
        }
        foreach ($this->startPages as $page) {
            $found = $files[strtolower($page)] ?? null;
            if ($found?->kind === EntryKind::File) {
                $this->placeholder->isAt($remote, $directory->child($found->name), $found->size)
                    ? $add(35, "the host's placeholder $found->name lies in it")
                    : $add(30, "a start page lies in it, $found->name");
                break;
            }
        }
        $known = array_intersect(self::SITE_FILES, array_keys($files));
        $known === [] || $add(10, 'files that sites have lie in it: '.implode(', ', $known));
        $usual = array_filter(
            $entries,
            static fn (RemoteEntry $entry): bool => $entry->kind === EntryKind::Directory
                && in_array(strtolower($entry->name), self::USUAL_NAMES, true),
        );
        $usual === [] || $add(-20, 'a likelier directory lies in it, '.current($usual)->name);
    }
}
