<?php

declare(strict_types=1);

namespace App\Runs;

use App\Hosting\Connections;
use App\Models\Deployment;
use App\Models\OpenAddress;
use App\Models\OpenAddressKind;
use App\Models\RecordKind;
use App\Models\Site;
use App\Plans\SiteFacts;
use App\Record\Record;
use App\Work\Tasks;
use Cellarium\Core\Deployment\LiveFindings;
use Cellarium\Core\Web\WebAnswer;
use Illuminate\Support\Facades\DB;

/** Addresses that answer everybody and should not: found after a deployment, asked again until they no longer do. */
final readonly class OpenAddresses
{
    /** Minutes between two times that one is asked without anybody waiting for it. */
    private const AGAIN_MINUTES = 30;

    public function __construct(private Connections $connections, private LiveProofs $proofs, private SiteFacts $facts)
    {
    }

    /** Writes down what a deployment has opened, and asks again what was open at its site before. */
    public function settle(Deployment $deployment, LiveFindings $found): void
    {
        $site = $deployment->site;
        $this->askAgain($site);
        $open = [];
        foreach ($found->public() as $one) {
            $open[$one->url] = ['kind' => OpenAddressKind::File, 'sha256' => $one->sha256];
        }
        foreach ($this->facts->setups($deployment) as $url => $says) {
            $open[$url] = ['kind' => OpenAddressKind::Setup, 'says' => $says];
        }
        foreach ($open as $url => $columns) {
            $address = new OpenAddress(['site_id' => $site->id, 'url' => $url] + $columns);
            if ($columns['kind'] === OpenAddressKind::File || self::isOpen($address, $this->fetched($site, $url))) {
                $this->write($address, $deployment);
            }
        }
    }

    /**
     * Asks for what is open at a site; what answers no longer is gone from the list.
     *
     * @return int how many answer still
     */
    public function askAgain(Site $site): int
    {
        $open = 0;
        foreach (OpenAddress::where('site_id', $site->id)->get() as $address) {
            if (self::isOpen($address, $this->fetched($site, $address->url))) {
                $open++;
                $address->update(['asked_at' => now()]);

                continue;
            }
            DB::transaction(static function () use ($address, $site): void {
                $address->delete();
                Record::write(RecordKind::AddressClosed, "$address->url answers visitors no longer", $site);
            });
        }

        return $open;
    }

    /** Has workers ask for those that were not asked for a while, each site's by itself. */
    public static function order(): void
    {
        OpenAddress::where('asked_at', '<', now()->subMinutes(self::AGAIN_MINUTES))
            ->distinct()
            ->pluck('site_id')
            ->each(static fn (int $site) => Tasks::order(AskOpenAddresses::class, $site));
    }

    private function write(OpenAddress $address, Deployment $deployment): void
    {
        $known = OpenAddress::where(['site_id' => $address->site_id, 'url' => $address->url])->first();
        ($known ?? $address)->fill([
            'deployment_id' => $deployment->id,
            'kind' => $address->kind,
            'says' => $address->says,
            'sha256' => $address->sha256,
            'asked_at' => now(),
        ])->save();
        $known === null && Record::write(
            RecordKind::AddressOpen,
            "$address->url answers everybody. {$address->words()}",
            $deployment->site,
            ['deployment' => $deployment->id],
            $deployment->person,
        );
    }

    private static function isOpen(OpenAddress $address, WebAnswer $answer): bool
    {
        // One that does not come, or not in time, tells nothing.
        return $answer->status === 0 || $answer->status >= 500 ? $address->exists : match ($address->kind) {
            OpenAddressKind::File => $answer->status === 200 && $answer->sha256 === $address->sha256,
            OpenAddressKind::Setup => $answer->status === 200
                && ($address->says === null || str_contains($answer->head, $address->says)),
        };
    }

    private function fetched(Site $site, string $url): WebAnswer
    {
        return $this->connections->web()->fetch($url, $this->proofs->hostAddress(
            $site,
            $this->connections->endpoint($site->account)->address,
        ));
    }
}
