<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Deployment;
use App\Plans\UploadInspection;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** A person's answers to the findings of an upload's inspection; the plan is made anew. */
final readonly class UploadInspectionController
{
    public function __construct(private UploadInspection $inspection)
    {
    }

    public function overrule(Request $request, Deployment $deployment): RedirectResponse
    {
        $given = $request->validate([
            'paths' => ['required', 'array', 'max:1000'],
            'paths.*' => ['string', 'max:4096'],
            'reason' => ['required', 'string', 'max:500'],
        ]);
        $this->inspection->overrule($deployment, array_values($given['paths']), $given['reason']);

        return redirect("/deployments/$deployment->id");
    }

    /** Whether a folder is meant, or what lies in it. */
    public function folder(Request $request, Deployment $deployment): RedirectResponse
    {
        $given = $request->validate(['meant' => ['required', 'in:folder,contents']]);
        $this->inspection->answerFolder($deployment, $given['meant'] === 'folder');

        return redirect("/deployments/$deployment->id");
    }

    public function correct(Deployment $deployment): RedirectResponse
    {
        $this->inspection->correct($deployment);

        return redirect("/deployments/$deployment->id");
    }
}
