<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Finding;

use Cellarium\Core\Manifest\Manifest;
use Cellarium\Core\Manifest\ManifestEntry;
use Cellarium\Core\Package\Contents\PackageContents;
use Cellarium\Core\Package\Type\PackageType;
use Cellarium\Core\Reference\References;

/** Programs where none belong, and modes that say more than they should. */
final readonly class ProgramFindings
{
    private const EXECUTABLE = '/\.(?:exe|dll|so|dylib|bat|cmd|msi|scr|sh|bash|ps1|vbs|app|deb|rpm|apk|jar)\z/i';

    private const SCRIPT = '/\.(?:php\d?|phtml|phar|cgi|pl|py|rb|aspx?|jsp|cfm)\z/i';

    /** Of these a browser makes something; what they hold begins like no program. */
    private const OF_THE_WEB = '/\.(?:html?|xhtml|shtml|css|m?js|json|map|xml|svg|txt|md|png|jpe?g|gif|webp|avif|ico'
        .'|bmp|woff2?|ttf|otf|eot|mp[34]|webm|ogg|wav|pdf|csv|webmanifest|vtt|wasm|php|zip|gz)\z/i';

    /** How programs begin: ELF, Windows, Mach-O, and scripts that name their interpreter. */
    private const BEGINS = '/\A(?:\x7fELF|MZ|[\xce\xcf]\xfa\xed\xfe|\xfe\xed\xfa[\xce\xcf]|\xca\xfe\xba\xbe|#!)/';

    public function __construct(private PackageContents $contents, private References $references)
    {
    }

    /**
     * @param  array<string, int>  $modes  twelve bits by path, of entries that have one
     * @return list<PackageFinding>
     */
    public function of(Manifest $manifest, array $modes, ?PackageType $type = null): array
    {
        // What is not recognised and begins with a script is taken for a program.
        $isApplication = $type === null ? $manifest->get('index.php') !== null : $type->id !== PackageType::BUILT_SITE;
        $findings = [];
        foreach ($manifest->files() as $entry) {
            $path = $entry->path->toString();
            if ($this->isExecutable($entry)) {
                $findings[] = new PackageFinding(
                    FindingCode::ExecutableFile,
                    $this->isOffered($path) ? Severity::Note : Severity::Warn,
                    'is a program for a computer, not part of a site'
                        .($this->isOffered($path) ? '; a page offers it.' : ', and everybody could fetch it.'),
                    $path,
                );
            } elseif (! $isApplication && preg_match(self::SCRIPT, $path) === 1) {
                $findings[] = new PackageFinding(
                    FindingCode::ServerScript,
                    Severity::Warn,
                    'is a script that the server would run; a built site needs none.',
                    $path,
                );
            }
        }

        return [...$findings, ...self::modes($modes)];
    }

    private function isExecutable(ManifestEntry $entry): bool
    {
        $path = $entry->path->toString();
        if (preg_match(self::EXECUTABLE, $path) === 1) {
            return true;
        }

        return preg_match(self::OF_THE_WEB, $path) !== 1
            && preg_match(self::SCRIPT, $path) !== 1
            && $entry->size > 3
            && preg_match(self::BEGINS, $this->contents->head($entry, 4)) === 1;
    }

    private function isOffered(string $path): bool
    {
        foreach ($this->references->links as $targets) {
            if (isset($targets[$path])) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  array<string, int>  $modes
     * @return list<PackageFinding> one for each mode
     */
    private static function modes(array $modes): array
    {
        $open = count(array_filter($modes, static fn (int $mode): bool => ($mode & 0002) !== 0));
        // Where most say so, it is the program that packed them and nobody's intention.
        $bits = $open * 2 > count($modes) ? 06000 : 06002;
        $paths = [];
        foreach ($modes as $path => $mode) {
            if (($mode & $bits) !== 0 || ($mode & 0400) === 0) {
                $paths[$mode][] = (string) $path;
            }
        }
        ksort($paths);
        $findings = [];
        foreach ($paths as $mode => $some) {
            $others = count($some) - 1;
            $what = match (true) {
                ($mode & 06000) !== 0 => 'would run with the permissions of its owner',
                ($mode & 0400) === 0 => 'cannot be read by its owner',
                default => 'can be written by everybody',
            };
            $findings[] = new PackageFinding(
                FindingCode::ModeUnusual,
                Severity::Note,
                sprintf('%s by its mode in the archive (%04o)', $what, $mode)
                    .($others > 0 ? ", and so do $others others" : '')
                    .'. Modes of archives are not carried to servers.',
                $some[0],
            );
        }

        return $findings;
    }
}
