<?php

declare(strict_types=1);

namespace App\Packages;

use App\Models\Package;
use Illuminate\Contracts\Pagination\LengthAwarePaginator;
use Illuminate\Http\Request;

/** Packages by their names, a page at a time, each with its newest version and where its versions run. */
final readonly class Library
{
    public const EACH = 100;

    private function __construct(public string $words, public LibraryOrder $order)
    {
    }

    public static function fromRequest(Request $request): self
    {
        return new self(
            mb_substr(trim($request->string('q')->toString()), 0, 100),
            LibraryOrder::tryFrom($request->string('sort')->toString()) ?? LibraryOrder::Newest,
        );
    }

    /** @return LengthAwarePaginator<int, LibraryRow> */
    public function page(): LengthAwarePaginator
    {
        $query = Package::kept()->toBase();
        foreach ($this->words === '' ? [] : explode(' ', $this->words) as $word) {
            $like = '%'.addcslashes($word, '%_\\').'%';
            $query->where(static fn ($any) => $any
                ->where('name', 'like', $like)
                ->orWhere('version', 'like', $like)
                ->orWhere('file_name', 'like', $like));
        }
        $page = $query
            ->groupBy('name')
            ->select('name')
            ->selectRaw('MAX(id) AS latest, COUNT(*) AS versions, MAX(bytes) AS bytes')
            ->orderBy(...$this->order->by())
            ->orderByDesc('latest')
            ->paginate(self::EACH)
            ->withQueryString();

        return $page->setCollection(collect($this->rows($page->items())));
    }

    /**
     * @param  array<object>  $found  name, newest version and number of versions of each
     * @return list<LibraryRow> in their order
     */
    private function rows(array $found): array
    {
        $live = WhereRuns::ofNames(array_map(static fn (object $row): string => $row->name, $found))->byName();
        $newest = Package::kept()
            ->whereIn('id', array_map(static fn (object $row): int => (int) $row->latest, $found))
            ->get()
            ->keyBy('id');
        $rows = [];
        foreach ($found as $row) {
            $package = $newest->get($row->latest);
            $package === null || $rows[] = new LibraryRow($package, (int) $row->versions, $live[$row->name] ?? []);
        }

        return $rows;
    }

    public function url(LibraryOrder $order): string
    {
        $query = http_build_query(array_filter([
            'q' => $this->words,
            'sort' => $order === LibraryOrder::Newest ? '' : $order->value,
        ]));

        return '/packages'.($query === '' ? '' : "?$query");
    }
}
