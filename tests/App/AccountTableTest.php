<?php

declare(strict_types=1);

namespace Tests\App;

use App\Accounts\AccountTable;
use App\Models\SavedView;
use Cellarium\Core\Connection\Protocol;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Builder\AccountBuilder;

/** Accounts are searched, sorted, saved as views; clients have facts of their own. */
final class AccountTableTest extends AppTestCase
{
    protected const HOST_IS_ONLY_READ = true;

    protected function setUp(): void
    {
        parent::setUp();
        if (! isset($this->person)) {
            return;
        }
        $this->actingAs($this->person);
        $this->account->update(['tags' => ['hostel'], 'notes' => 'asks for Mona']);
        AccountBuilder::anAccount()
            ->of('Zostera Divers', 'Coast')
            ->at('a.example')
            ->as('zo')
            ->over(Protocol::Ftp)
            ->withSite('dive.example')
            ->build();
    }

    /** @return iterable<string, array{string, string}> */
    public static function searches(): iterable
    {
        yield 'a client' => ['q=pilgrim', 'Pilgrim'];
        yield 'a note' => ['q=mona', 'Pilgrim'];
        yield 'a domain' => ['q=site.exa', 'Pilgrim'];
        yield 'a tag' => ['tag=hostel', 'Pilgrim'];
        yield 'another domain' => ['q=dive', 'Zostera'];
        yield 'a group' => ['group=Coast', 'Zostera'];
        yield 'those without encryption' => ['only=plain', 'Zostera'];
        yield 'a login and a host' => ['q=zo+a.example', 'Zostera'];
    }

    #[DataProvider('searches')]
    public function test_accounts_are_found_by(string $query, string $name): void
    {
        $other = $name === 'Pilgrim' ? 'Zostera Divers' : 'Pilgrim Stones';
        $this->get("/accounts?$query")->assertOk()->assertSee($name)->assertDontSee($other);
    }

    public function test_a_wildcard_is_a_letter(): void
    {
        $this->get('/accounts?q=%25')->assertSee('No account fits');
    }

    public function test_accounts_are_sorted_both_ways_by_every_column(): void
    {
        foreach (array_keys(AccountTable::ORDERS) as $order) {
            $this->get("/accounts?sort=$order&down=1")->assertOk()->assertSee('Zostera');
        }
        $this->get('/accounts?sort=client')->assertSeeInOrder(['Pilgrim Stones', 'Zostera Divers']);
        $this->get('/accounts?sort=client&down=1')->assertSeeInOrder(['Zostera Divers', 'Pilgrim Stones']);
    }

    public function test_a_view_is_saved_under_its_name_and_removed(): void
    {
        $this->followingRedirects()
            ->post('/views', ['name' => 'The coast', 'query' => 'group=Coast&nonsense=1'])
            ->assertSee('The coast')
            ->assertSee('Zostera')
            ->assertDontSee('Pilgrim Stones');
        $view = SavedView::firstOrFail();
        self::assertSame('group=Coast', $view->query);
        $this->followingRedirects()
            ->post("/views/$view->id/remove")
            ->assertDontSee('<a href="/accounts?group=Coast"', false);
    }

    public function test_the_finder_offers_the_accounts_of_before(): void
    {
        $this->get("/accounts/{$this->account->id}");
        $this->get('/find?q=')->assertSee('connect again')->assertSee('Pilgrim Stones Hostel');
    }

    public function test_a_client_has_a_name_of_its_own_a_colour_and_a_group(): void
    {
        $address = "/clients/{$this->account->client_id}";
        $this->post($address, ['name' => 'Zostera Divers', 'colour' => '#000000'])->assertSessionHasErrors('name');
        $this->followingRedirects()
            ->post($address, [
                'name' => 'Pilgrim Stones',
                'colour' => '#aa5500',
                'group' => 'Hostels',
                'notes' => '',
            ])
            ->assertSee('Pilgrim Stones is saved.');
        $this->get('/')->assertSee('Hostels');
    }
}
