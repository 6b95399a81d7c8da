<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Web\FetchesPlainly;
use Cellarium\Core\Web\RedirectTargets;
use Cellarium\Core\Web\WebAnswer;
use Cellarium\Core\Words\Count;
use Psr\Clock\ClockInterface;

/**
 * Circumstances that visitors meet beside the bytes: caches, redirects, the certificate, and what browsers block. It is
 * told with a proof and decides nothing: what was sent is there.
 */
final readonly class LiveLook
{
    /** So many of the proven addresses are asked for plainly, too. */
    private const PLAINLY = 24;

    private const MOST_HOPS = 6;

    /** A certificate that ends sooner is told. */
    private const DAYS_SOON = 21;

    /** So many names are told one by one. */
    private const NAMED = 3;

    /** @param  (\Closure(string): list<string>)|null  $addresses  of a host name; null asks the name service */
    public function __construct(
        private FetchesPlainly $fetcher,
        private ClockInterface $clock,
        private ?\Closure $addresses = null,
    ) {
    }

    /**
     * @param  string|null  $start  the address visitors come in at
     * @param  list<PageProof>  $proofs  that hold
     * @param  list<string>  $overHttp  changed pages that load something over http from elsewhere
     * @return list<string> sentences
     */
    public function look(?string $start, array $proofs, array $overHttp): array
    {
        $isEncrypted = $start !== null && str_starts_with($start, 'https:');

        return [
            ...$this->caches($proofs),
            ...$start === null ? [] : $this->ways($start, $isEncrypted),
            ...$isEncrypted ? $this->certificate($start) : [],
            ...$isEncrypted && $overHttp !== [] ? [
                self::named($overHttp).Count::choose(count($overHttp), ' loads', ' load')
                    .' something over http, which browsers block on a page that came over https.',
            ] : [],
        ];
    }

    /**
     * @param  list<PageProof>  $proofs
     * @return list<string>
     */
    private function caches(array $proofs): array
    {
        $old = [];
        $age = null;
        foreach (array_slice($proofs, 0, self::PLAINLY) as $proof) {
            if ($proof->matches !== true || $proof->gone || $proof->sha256 === null) {
                continue;
            }
            $answer = $this->fetcher->fetchPlainly($proof->url, $proof->at);
            if ($answer->status === 200 && $answer->sha256 !== $proof->sha256) {
                $old[] = (string) parse_url($proof->url, PHP_URL_PATH);
                $age ??= self::age($answer);
            }
        }

        return $old === [] ? [] : [
            'Asked past caches it is all there; asked plainly, '.self::named($old)
                .Count::choose(count($old), ' still comes', ' still come').' as before, out of a cache'
                .($age === null ? '' : " that has it for $age").'. Empty the cache in the panel of the host, or wait '
                .'until it lets go.',
        ];
    }

    /** @return list<string> how one comes from http to where the site is, where that is a way at all */
    private function ways(string $start, bool $isEncrypted): array
    {
        if (! $isEncrypted) {
            return [];
        }
        $from = 'http:'.substr($start, strlen('https:'));
        $hops = [$from];
        $url = $from;
        $at = '';
        $targets = new RedirectTargets($start, $this->addresses);
        do {
            $answer = $this->fetcher->fetchPlainly($url, $at === '' ? null : $at);
            $url = $answer->status >= 300 && $answer->status < 400 ? $answer->location : null;
            $url === null || $hops[] = $url;
            $at = $url === null ? '' : $targets->at($url);
        } while (
            $url !== null
            && $at !== null
            && count($hops) < self::MOST_HOPS
            && count(array_unique($hops)) === count($hops)
        );
        $last = $hops[count($hops) - 1];

        return match (true) {
            $at === null => [implode(' leads to ', $hops).', which is neither the site nor a public address. It was '
                .'not asked; look at what sends visitors there.'],
            $url !== null => ['Visitors of http are sent in a circle: '.implode(', ', $hops).'.'],
            $last === $from => ["$from does not lead on to https".self::instead($answer).'.'],
            ! str_starts_with($last, 'https:') => [implode(' leads to ', $hops).', which is not https.'],
            count($hops) > 2 => [implode(' leads to ', $hops).'; one step would do.'],
            default => [],
        };
    }

    private static function instead(WebAnswer $answer): string
    {
        return match (true) {
            $answer->status === 200 => ': it shows the site unencrypted',
            $answer->status === 0 => ': it does not answer',
            default => ": it answers with status $answer->status",
        };
    }

    /** @return list<string> */
    private function certificate(string $start): array
    {
        $ends = $this->fetcher->fetchPlainly($start)->certificateEnds;
        $days = $ends === null ? null : intdiv($ends - $this->clock->now()->getTimestamp(), 86_400);

        return $days === null || $days > self::DAYS_SOON
            ? []
            : ['The certificate ends on '.gmdate('j M Y', (int) $ends).', in '
                .Count::choose($days, 'one day', "$days days")
                .'. Renew it at the host, or see to it that it is renewed by itself.'];
    }

    private static function age(WebAnswer $answer): ?string
    {
        $age = $answer->headers['age'] ?? '';

        return preg_match('/\A\d{1,9}\z/', $age) === 1 ? "$age s" : null;
    }

    /** @param  non-empty-list<string>  $names */
    private static function named(array $names): string
    {
        $more = count($names) - self::NAMED;

        return implode(', ', array_slice($names, 0, self::NAMED)).($more > 0 ? " and $more more" : '');
    }
}
