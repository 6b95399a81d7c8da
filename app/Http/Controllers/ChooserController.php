<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Package;
use App\Models\Site;
use App\Text\Amount;
use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;

/** Finds a site or a package for a deployment, among thousands, as it is typed. */
final class ChooserController
{
    private const AT_ONCE = 6;

    public function sites(Request $request): View
    {
        $words = self::words($request);
        $like = '%'.addcslashes($words, '%_\\').'%';
        $query = Site::query()
            ->join('accounts', 'accounts.id', '=', 'sites.account_id')
            ->join('clients', 'clients.id', '=', 'accounts.client_id');
        $words === ''
            ? $query->orderByDesc('accounts.used_at')->orderBy('sites.domain')
            : $query
                ->where(
                    static fn ($any) => $any
                        ->where('sites.domain', 'like', $like)
                        ->orWhere('clients.name', 'like', $like),
                )
                ->orderBy('sites.domain');
        $package = $request->integer('package');

        return view('parts.choices', [
            'words' => $words,
            'all' => $words === '' ? Site::count() : null,
            'what' => 'sites',
            'choices' => $query
                ->limit(self::AT_ONCE)
                ->get(['sites.id', 'sites.domain', 'clients.name', 'sites.document_root'])
                ->map(
                    static fn (Site $site): array => [
                        'url' => '/deployments/new?'
                            .http_build_query(['site' => $site->id] + ($package > 0 ? ['package' => $package] : [])),
                        'name' => $site->domain,
                        'note' => "{$site->getAttribute('name')}, $site->document_root",
                    ],
                )
                ->all(),
        ]);
    }

    public function packages(Request $request): View
    {
        $words = self::words($request);
        $query = Package::kept()->where('stops', false)->latest('id');
        foreach ($words === '' ? [] : explode(' ', $words) as $word) {
            $like = '%'.addcslashes($word, '%_\\').'%';
            $query->where(
                static fn ($any) => $any
                    ->where('name', 'like', $like)
                    ->orWhere('version', 'like', $like)
                    ->orWhere('file_name', 'like', $like),
            );
        }
        $site = $request->integer('site');

        return view('parts.choices', [
            'words' => $words,
            'all' => $words === '' ? Package::kept()->where('stops', false)->count() : null,
            'what' => 'packages',
            'choices' => $query
                ->limit(self::AT_ONCE)
                ->get(['id', 'name', 'version', 'file_name', 'files', 'created_at'])
                ->map(
                    static fn (Package $package): array => [
                        'url' => '/deployments/new?'
                            .http_build_query(['package' => $package->id] + ($site > 0 ? ['site' => $site] : [])),
                        'name' => $package->title(),
                        'note' => Amount::files($package->files).', '.$package->created_at->shown('j M Y'),
                    ],
                )
                ->all(),
        ]);
    }

    private static function words(Request $request): string
    {
        return (string) preg_replace('/\s+/u', ' ', trim(mb_substr($request->string('q')->toString(), 0, 100)));
    }
}
