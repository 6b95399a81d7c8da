<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Errands\Errands;
use App\Files\FetchedFile;
use App\Models\Deployment;
use App\Models\DeploymentKind;
use App\Models\DeploymentState;
use App\Models\ProofBy;
use App\Plans\PlanAnswers;
use App\Plans\PlanFile;
use App\Plans\PlanFileView;
use App\Plans\PlanRow;
use App\Plans\PlanSide;
use App\Plans\PlanTree;
use App\Plans\Ways;
use App\Plans\WaysView;
use App\Storage\RunFiles;
use Cellarium\Core\Plan\Answers;
use Cellarium\Core\Plan\Change;
use Cellarium\Core\Plan\Choice;
use Cellarium\Core\Plan\PlanFilter;
use Cellarium\Core\Plan\PlanItem;
use Cellarium\Core\Plan\Way;
use Cellarium\Core\Plan\WayCost;
use Illuminate\Contracts\View\View;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Validation\Rule;

/** The plan of a deployment: its tree as it is opened, its questions, and single files with all their sides. */
final class PlanController
{
    private const QUESTIONS = 'questions';

    /** What was fetched to be looked at is shown for so long. */
    private const FETCHED_SECONDS = 300;

    /** No plan has more. */
    private const MOST_ROWS = 100_000_000;

    /** What browsers show as a picture; nothing else is given out as what it says it is. */
    private const PICTURES = [
        'png' => 'image/png',
        'jpg' => 'image/jpeg',
        'jpeg' => 'image/jpeg',
        'gif' => 'image/gif',
        'webp' => 'image/webp',
        'svg' => 'image/svg+xml',
        'ico' => 'image/x-icon',
        'avif' => 'image/avif',
    ];

    public function tree(Request $request, Deployment $deployment, RunFiles $files): View
    {
        $deployment->load('site.account');
        $tree = new PlanTree(
            $files->planReader($deployment),
            $deployment->site,
            $deployment->runPlace(),
            self::filter($request),
            $deployment->kind === DeploymentKind::Undo,
        );
        $from = self::from($request);
        $facts = ['deployment' => $deployment, 'rowsAt' => "/deployments/$deployment->id/plan?"];

        return match (true) {
            $request->has('in') => view('parts.plan-rows', $facts + [
                'rows' => $tree->inside((string) $request->query('in'), $from),
            ]),
            $from > 0 => view('parts.plan-rows', $facts + ['rows' => $tree->found($from)]),
            default => view('parts.plan-table', $facts + ['tree' => $tree]),
        };
    }

    public function answer(Request $request, Deployment $deployment, PlanAnswers $answering): RedirectResponse
    {
        $given = $request->validate([
            'scope' => ['present', 'nullable', 'string', 'max:4096'],
            'choice' => ['required', Rule::enum(Choice::class)->except(Choice::Newer)],
        ]);
        $answering->answer($deployment, $given['scope'] ?? Answers::ALL, Choice::from($given['choice']));

        return redirect("/deployments/$deployment->id?".http_build_query(array_filter([
            'show' => $request->input('show'),
            'name' => $request->input('name'),
        ])));
    }

    /** How the run is to go; for this plan only. */
    public function settings(Request $request, Deployment $deployment): RedirectResponse
    {
        $given = $request->validate([
            'connections' => ['nullable', 'integer', 'between:1,'.(int) config('cellarium.host_connections')],
            'proof_stops' => ['required', 'boolean'],
            'proof' => ['nullable', Rule::in([ProofBy::ReadingBack->value, ...WaysView::SAMPLES])],
            'way' => ['nullable', Rule::enum(Way::class)->except(self::barred($deployment))],
        ]);
        $readsBack = ($given['proof'] ?? null) === ProofBy::ReadingBack->value;
        Deployment::where(['id' => $deployment->id, 'state' => DeploymentState::Planned])->update([
            'connections' => $given['connections'] ?? null,
            'proof_stops' => (bool) $given['proof_stops'],
            'proof_by' => $readsBack ? ProofBy::ReadingBack : ProofBy::Visitors,
            'proof_most' => $readsBack ? null : $given['proof'] ?? null,
        ] + (isset($given['way']) ? ['way' => $given['way'], 'way_chosen' => true] : []));

        return redirect("/deployments/$deployment->id");
    }

    /** @return list<Way> that cannot be chosen */
    private static function barred(Deployment $deployment): array
    {
        $barred = array_filter(
            Ways::forDeployment($deployment),
            static fn (WayCost $cost): bool => $cost->barred !== null,
        );

        return array_values(array_map(static fn (WayCost $cost): Way => $cost->way, $barred));
    }

    public function file(Request $request, Deployment $deployment, PlanFile $file): View|RedirectResponse
    {
        $deployment->load('site.account.client', 'package', 'comparedWith');
        $item = $file->item($deployment, (string) $request->query('path'));
        $live = $file->isHidden($deployment, $item, []) ? null : $this->fetched($deployment, $item, $file);
        if ($live?->errand->state->hasEnded() === false) {
            return Errands::answer($live->errand);
        }
        $bytes = [];
        foreach (PlanSide::cases() as $side) {
            $side->of($item) === null || $bytes[$side->value] = $file->bytes($item, $side);
        }
        $live === null || $bytes[PlanSide::Live->value] = $live->text();
        $isHidden = $file->isHidden($deployment, $item, $bytes);
        $bytes = $isHidden ? [] : $bytes;

        return view('plan-file', [
            'deployment' => $deployment,
            'site' => $deployment->site,
            'view' => new PlanFileView(
                $deployment,
                $item,
                PlanRow::ofFile($item, null, null, false, $deployment->kind === DeploymentKind::Undo),
                $bytes,
                $isHidden,
            ),
        ]);
    }

    /** A picture from one side; it cannot run anything, whatever is in it. */
    public function side(Request $request, Deployment $deployment, PlanFile $file): Response
    {
        $deployment->load('site.account');
        $item = $file->item($deployment, (string) $request->query('path'));
        $side = PlanSide::tryFrom((string) $request->query('side'));
        $type = self::PICTURES[$item->path->extension()] ?? null;
        if ($side === null || $type === null || $file->isHidden($deployment, $item, [])) {
            return self::noPicture();
        }
        $bytes = $side === PlanSide::Live ? $this->fetched($deployment, $item, $file)?->text() : null;
        $bytes ??= $file->bytes($item, $side);

        return $bytes === null || $file->isHidden($deployment, $item, [$bytes])
            ? self::noPicture()
            : new Response($bytes, 200, [
                'Content-Type' => $type,
                'Content-Security-Policy' => "default-src 'none'; style-src 'unsafe-inline'; sandbox",
                'Cache-Control' => 'private, max-age=600',
            ]);
    }

    private static function noPicture(): Response
    {
        return new Response('There is no picture here.', 404, ['Content-Type' => 'text/plain']);
    }

    /** Null where what is on the server is in the store, is not there, or is too large to be looked at. */
    private function fetched(Deployment $deployment, PlanItem $item, PlanFile $file): ?FetchedFile
    {
        return $file->isElsewhere($item) ? FetchedFile::forPlace(
            $deployment->site->account,
            $deployment->runPlace()->root->join($item->path),
            "plan $deployment->id",
            "/deployments/$deployment->id/file?".http_build_query(['path' => $item->path->toString()]),
            PlanFile::LARGEST,
            true,
            self::FETCHED_SECONDS,
        ) : null;
    }

    /** Rows that are passed over. */
    public static function from(Request $request): int
    {
        return min(self::MOST_ROWS, max(0, $request->integer('from')));
    }

    public static function filter(Request $request): PlanFilter
    {
        $show = (string) $request->input('show');

        return new PlanFilter(
            Change::tryFrom($show),
            $show === self::QUESTIONS,
            trim((string) $request->input('name')),
        );
    }
}
