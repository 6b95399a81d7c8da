<?php

declare(strict_types=1);

namespace Cellarium\Core\DocumentRoot;

use Cellarium\Core\Connection\FailureReason;
use Cellarium\Core\Connection\RemoteDirectory;
use Cellarium\Core\Connection\RemoteFailure;
use Cellarium\Core\Path\RemotePath;
use Cellarium\Core\Web\WebAnswer;

/** A file of ours that is put into a document root, fetched at its address, and removed again whatever happens. */
final readonly class PlacedFile
{
    /** @param  string  $name  that nobody can guess */
    public function __construct(
        private RemotePath $root,
        private string $name,
        private string $text,
    ) {
    }

    /**
     * @param  \Closure(WebAnswer): bool  $shows  whether an answer is of this file
     * @return array{WebAnswer, WebAnswer|null} of the domain, and of the host's own address where only that shows it
     *
     * @throws RemoteFailure when it could not be put there or not be removed
     */
    public function fetch(ServedSite $site, \Closure $shows): array
    {
        return $this->during($site->remote, static function (RemotePath $place) use ($site, $shows): array {
            $url = (string) $site->addresses->of($place);
            $answer = $site->fetcher->fetch($url);
            $direct = $site->hostAddress === null || $shows($answer)
                ? null
                : $site->fetcher->fetch($url, $site->hostAddress);

            return [$answer, $direct !== null && $shows($direct) ? $direct : null];
        });
    }

    /**
     * Does something while it is there.
     *
     * @template Found
     *
     * @param  \Closure(RemotePath): Found  $do
     * @return Found
     *
     * @throws RemoteFailure when it could not be put there or not be removed
     */
    public function during(RemoteDirectory $remote, \Closure $do): mixed
    {
        $place = $this->root->child($this->name);
        $stream = fopen('php://temp', 'w+b');
        assert($stream !== false);
        fwrite($stream, $this->text);
        rewind($stream);
        try {
            $remote->write($place, $stream, strlen($this->text));

            return $do($place);
        } finally {
            self::remove($remote, $place);
        }
    }

    /** Without asking whether it is there: a listing may leave it out. */
    private static function remove(RemoteDirectory $remote, RemotePath $place): void
    {
        try {
            $remote->remove($place);
        } catch (RemoteFailure $failure) {
            if ($failure->reason !== FailureReason::NotFound) {
                throw $failure;
            }
        }
    }
}
