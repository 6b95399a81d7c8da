<?php

declare(strict_types=1);

namespace Cellarium\Standin\Web;

use Cellarium\Standin\Ftp\Jail;
use Cellarium\Standin\Http\Request;
use Cellarium\Standin\Http\Response;
use Cellarium\Standin\World\HostedSite;
use Cellarium\Standin\World\World;

/**
 * Serves the document root that belongs to the request's Host header.
 *
 * A name with `.localhost` behind it means the same site, so that a browser on this machine needs no name service.
 */
final readonly class WebSites
{
    private const TYPES = [
        'html' => 'text/html; charset=utf-8',
        'htm' => 'text/html; charset=utf-8',
        'css' => 'text/css; charset=utf-8',
        'js' => 'text/javascript; charset=utf-8',
        'mjs' => 'text/javascript; charset=utf-8',
        'json' => 'application/json',
        'txt' => 'text/plain; charset=utf-8',
        'xml' => 'application/xml',
        'svg' => 'image/svg+xml',
        'png' => 'image/png',
        'jpg' => 'image/jpeg',
        'jpeg' => 'image/jpeg',
        'gif' => 'image/gif',
        'webp' => 'image/webp',
        'ico' => 'image/x-icon',
        'woff2' => 'font/woff2',
        'woff' => 'font/woff',
        'pdf' => 'application/pdf',
        'zip' => 'application/zip',
    ];

    /** Served from a directory that belongs to no account, for whoever unpacks something there to look at it. */
    private const REHEARSAL = 'rehearsal.example';

    /** @param  string|null  $rehearsals  the directory for that name */
    public function __construct(private World $world, private PhpRunner $php, private ?string $rehearsals = null)
    {
    }

    public function answer(Request $request): Response
    {
        $domain = preg_replace('/\.localhost\z/', '', $request->host()) ?? '';
        if ($domain === self::REHEARSAL && $this->rehearsals !== null) {
            return $this->serve(
                $request,
                new HostedSite($domain, '', ['index.html']),
                $this->rehearsals,
                rawurldecode($request->path),
            );
        }
        $found = $this->world->siteByDomain($domain)
            ?? $this->world->siteByDomain(preg_replace('/\Awww\./', '', $domain) ?? '');
        if ($found === null) {
            return Response::html(404, 'No such site', '<p>No site of this name is hosted here.</p>');
        }
        [$account, $site] = $found;
        $path = rawurldecode($request->path);
        [$directory, $below] = $site->serves($path);

        return $this->serve($request, $site, $account->home.$directory, $below);
    }

    private function serve(Request $request, HostedSite $site, string $root, string $below): Response
    {
        $path = rawurldecode($request->path);
        $jail = new Jail($root);
        $virtual = $jail->virtual('/', $below);
        $real = $virtual === null ? null : $jail->real($virtual);
        if ($virtual === null || $real === null || preg_match('#/\.ht[^/]*#', $virtual) === 1) {
            return $this->forbidden();
        }
        clearstatcache();
        if (is_dir($real)) {
            return str_ends_with($path, '/')
                ? $this->directory($request, $site, $real, $virtual)
                : new Response(301, '', ['Location' => $request->path.'/']);
        }

        return is_file($real)
            ? $this->file($request, $real)
            : Response::html(404, 'Not found', '<p>There is no file of this name.</p>');
    }

    private function directory(Request $request, HostedSite $site, string $real, string $virtual): Response
    {
        foreach ($site->startPages as $name) {
            if (is_file("$real/$name")) {
                return $this->file($request, "$real/$name");
            }
        }
        $rows = '';
        $names = @scandir($real);
        foreach (array_diff($names === false ? [] : $names, ['.', '..']) as $name) {
            $slash = is_dir("$real/$name") ? '/' : '';
            $rows .= '<li><a href="'.rawurlencode($name).$slash.'">'.htmlspecialchars($name).$slash.'</a></li>';
        }

        return Response::html(200, "Index of $virtual", "<ul>$rows</ul>");
    }

    private function file(Request $request, string $real): Response
    {
        $mode = (int) fileperms($real);
        if (($mode & 0004) === 0) {
            return $this->forbidden();
        }
        $extension = strtolower(pathinfo($real, PATHINFO_EXTENSION));
        if ($extension === 'php') {
            return $this->php->run($request, $real);
        }
        $etag = sprintf('"%x-%x-%x"', filemtime($real), filesize($real), fileinode($real));
        $headers = [
            'Content-Type' => self::TYPES[$extension] ?? 'application/octet-stream',
            'Last-Modified' => gmdate('D, d M Y H:i:s', (int) filemtime($real)).' GMT',
            'ETag' => $etag,
        ];
        if ($request->header('if-none-match') === $etag) {
            return new Response(304, '', $headers);
        }
        $body = file_get_contents($real);

        return $body === false ? $this->forbidden() : new Response(200, $body, $headers);
    }

    private function forbidden(): Response
    {
        return Response::html(403, 'Forbidden', '<p>This is not for you.</p>');
    }
}
