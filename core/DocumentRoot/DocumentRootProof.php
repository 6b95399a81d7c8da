<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Proof\ProofStep;
use Cellarium\Core\Web\WebAnswer;

/**
 * Proves that a directory is what the web server serves for a site: a random token put there answers at its address.
 */
final class DocumentRootProof
{
    /**
     * Where the domain leads elsewhere or nowhere yet, the host itself is asked for it. The token is removed again
     * whatever happens.
     *
     * @param  string  $nonce  random letters and digits
     *
     * @throws RemoteFailure when the token could not be put there or not be removed
     */
    public static function prove(ServedSite $site, RemotePath $root, string $nonce): ProofStep
    {
        $text = "cellarium $nonce\n";
        [$answer, $direct] = (new PlacedFile($root, self::tokenName($nonce), $text))->fetch(
            $site,
            static fn (WebAnswer $came): bool => $came->status === 200 && $came->head === $text,
        );
        if ($direct !== null) {
            return new ProofStep(
                true,
                "A token put into $root answered at $direct->url, asked of the host's own address $site->hostAddress",
                $answer->nameUnknown
                    ? 'The domain leads nowhere yet: visitors see nothing until its record exists.'
                    : 'The domain itself leads elsewhere so far: visitors still see another server.',
            );
        }

        return self::read($answer, $root, $text);
    }

    public static function tokenName(string $nonce): string
    {
        return "cellarium-$nonce.txt";
    }

    private static function read(WebAnswer $answer, RemotePath $root, string $text): ProofStep
    {
        return match (true) {
            $answer->status === 200 && $answer->head === $text => new ProofStep(
                true,
                "A token put into $root answered at $answer->url",
            ),
            $answer->status === 200 => new ProofStep(
                false,
                "Another site answered at $answer->url",
                'The domain is served from elsewhere: check which host it points to.',
            ),
            $answer->status === 404 => new ProofStep(
                false,
                "The token in $root was not found at $answer->url",
                'This is not the document root; try another directory.',
            ),
            $answer->status === 403 => new ProofStep(
                false,
                "The token in $root is forbidden at $answer->url",
                'Check the permissions of the directory.',
            ),
            $answer->status >= 300 && $answer->status < 400 && self::isElsewhere($answer) => new ProofStep(
                false,
                "$answer->url redirects to another host: $answer->location",
                'Prove it at the address it redirects to, or ask why this host sends its visitors away.',
            ),
            $answer->status >= 300 && $answer->status < 400 => new ProofStep(
                false,
                "$answer->url redirects to ".($answer->location ?? 'nowhere'),
                'Use the address it redirects to as the address of this site.',
            ),
            $answer->nameUnknown => new ProofStep(
                false,
                "The name in $answer->url does not resolve",
                'Ask for an A or AAAA record that leads the domain to this host, or check its spelling.',
            ),
            $answer->status === 0 => new ProofStep(
                false,
                "$answer->url did not answer: ".($answer->error ?? 'no reason given'),
                'Check that the domain points to this host.',
            ),
            default => new ProofStep(
                false,
                "$answer->url answered with status $answer->status",
                'Look at the page in a browser.',
            ),
        };
    }

    private static function isElsewhere(WebAnswer $answer): bool
    {
        $to = parse_url((string) $answer->location, PHP_URL_HOST);

        return is_string($to) && strcasecmp($to, (string) parse_url($answer->url, PHP_URL_HOST)) !== 0;
    }
}
