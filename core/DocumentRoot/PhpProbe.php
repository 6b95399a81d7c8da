<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\WebAnswer;

/** Asks a site which PHP it runs, by a small program that says so: what a host says of itself is another matter. */
final class PhpProbe
{
    /** More of them, or longer names, are no list of extensions. */
    private const MOST = 300;

    /**
     * @param  string  $nonce  random letters and digits
     *
     * @throws RemoteFailure when the program could not be put there or not be removed
     */
    public static function ask(ServedSite $site, RemotePath $root, string $nonce): PhpAnswer
    {
        $program = "<?php header('Content-Type: text/plain'); echo \"cellarium $nonce \", PHP_VERSION, ' ', "
            ."strtolower(str_replace(' ', '_', implode(',', get_loaded_extensions())));\n";
        [$answer, $direct] = (new PlacedFile($root, self::fileName($nonce), $program))->fetch(
            $site,
            static fn (WebAnswer $came): bool => $came->status === 200 && str_contains($came->head, $nonce),
        );
        $came = $direct ?? $answer;

        return match (true) {
            $came->status === 200 && $came->head === $program => new PhpAnswer(null),
            preg_match("/\Acellarium $nonce (\d+\.\d+\.\d+)\S* ([a-z0-9_.,-]*)\s*\z/", $came->head, $match) === 1
                && substr_count($match[2], ',') < self::MOST => new PhpAnswer($match[1], self::names($match[2])),
            default => new PhpAnswer(null, trouble: self::trouble($came)),
        };
    }

    public static function fileName(string $nonce): string
    {
        return "cellarium-$nonce.php";
    }

    /** @return list<string> */
    private static function names(string $list): array
    {
        $names = array_values(array_filter(explode(',', $list), static fn (string $name): bool => $name !== ''));
        sort($names, SORT_STRING);

        return $names;
    }

    private static function trouble(WebAnswer $answer): string
    {
        return match (true) {
            $answer->error !== null => "$answer->url did not answer: $answer->error",
            $answer->status !== 200 => "$answer->url answered with status $answer->status",
            default => "$answer->url answered with something else",
        };
    }
}
