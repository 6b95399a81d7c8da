<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

use Cellarium\Core\Credential\Secret;

interface ServiceCaller
{
    /**
     * Asks a service that speaks JSON (RFC 8259) over HTTP with a bearer token (RFC 6750), following no redirect; a
     * failure, and an answer too long to be one, is an answer with status 0.
     *
     * @param  non-empty-string  $method
     * @param  Secret|null  $json  the body, which may have passwords in it
     * @return WebAnswer its head is the whole body
     */
    public function call(string $method, string $url, Secret $token, ?Secret $json = null): WebAnswer;
}
