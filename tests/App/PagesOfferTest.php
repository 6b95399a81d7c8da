<?php

declare(strict_types=1);

namespace Tests\App;

use App\Models\Person;
use App\People\Access;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Builder\PersonBuilder;

/** No page offers a link or a button that then says no: every one on every page is asked as each role. */
final class PagesOfferTest extends AppTestCase
{
    /** @return iterable<string, array{string}> */
    public static function roles(): iterable
    {
        yield 'a helper' => ['helper'];
        yield 'a client’s person' => ['clients'];
    }

    #[DataProvider('roles')]
    public function test_every_link_and_button_leads_where_they_may_go(string $role): void
    {
        $this->ftpUser();
        $this->deployed();
        $person = $role === 'helper'
            ? PersonBuilder::aHelper()->build()
            : PersonBuilder::aPersonOf($this->account->client)->build();
        $this->actingAs($person);
        $todo = ['/'];
        $seen = [];
        while (($address = array_shift($todo)) !== null) {
            $seen[] = $address;
            $page = $this->get($address);
            self::assertSame(200, $page->getStatusCode(), "$address is linked from a page");
            foreach ($this->offers((string) $page->getContent()) as [$method, $to]) {
                self::assertTrue(app(Access::class)->leads($to, $method), "$address offers $method $to");
                $path = (string) parse_url($to, PHP_URL_PATH);
                $isNew = $method === 'GET' && ! in_array($path, array_map(
                    static fn (string $one): string => (string) parse_url($one, PHP_URL_PATH),
                    [...$seen, ...$todo],
                ), true);
                $isNew && ! str_ends_with($path, '.csv') && $todo[] = $to;
            }
        }
        self::assertGreaterThan($role === 'helper' ? 15 : 4, count($seen), implode(' ', $seen));
    }

    /** @return list<array{string, string}> method and address of every link, form and live fragment */
    private function offers(string $html): array
    {
        $page = new \DOMDocument;
        @$page->loadHTML("<?xml encoding=\"utf-8\"?>$html");
        $offers = [];
        foreach ($page->getElementsByTagName('*') as $element) {
            $offers[] = ['GET', $element->nodeName === 'a' ? $element->getAttribute('href') : ''];
            $offers[] = ['GET', $element->getAttribute('hx-get')];
            $offers[] = ['POST', $element->getAttribute('hx-post')];
            $offers[] = ['POST', $element->getAttribute('formaction')];
            $offers[] = [strtoupper($element->getAttribute('method')), $element->getAttribute('action')];
        }

        return array_values(array_filter($offers, static fn (array $offer): bool => str_starts_with($offer[1], '/')));
    }

    public function test_a_link_to_nowhere_is_a_fault_of_ours(): void
    {
        $this->actingAs(Person::firstOrFail());
        $this->expectException(\LogicException::class);
        app(Access::class)->leads('/no/such/page');
    }
}
