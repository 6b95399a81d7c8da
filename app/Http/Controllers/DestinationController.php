<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Failure\Problem;
use App\Models\Destination;
use App\Models\RecordKind;
use App\Models\Site;
use App\Record\Record;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;

/** Directories of a site that have a name. */
final class DestinationController
{
    public function keep(Request $request, Site $site): RedirectResponse
    {
        $site->load('account');
        $name = mb_substr(
            trim((string) preg_replace('/[\x00-\x1f\x7f]/u', '', $request->string('name')->toString())),
            0,
            60,
        );
        $name !== '' || throw new Problem('A destination needs a name.');
        $directory = RemotePath::tryFromString($request->string('directory')->toString())
            ?? throw new Problem('The directory starts with a slash and has no ".." in it.');
        $site->destinations()->updateOrCreate(['name' => $name], ['directory' => $directory->toString()]);
        Record::write(RecordKind::DestinationSaved, "$name of $site->domain is $directory", $site);

        return redirect("/sites/$site->id/edit#destinations")->with(
            'done',
            $site->account->seen()->lacks($directory)
                ? "Saved. $directory was not there when the account was last looked at."
                : 'Saved.',
        );
    }

    public function remove(Destination $destination): RedirectResponse
    {
        $destination->load('site.account');
        $destination->delete();
        Record::write(
            RecordKind::DestinationRemoved,
            "$destination->name of {$destination->site->domain} is no destination any more",
            $destination->site,
        );

        return redirect("/sites/$destination->site_id/edit#destinations")->with(
            'done',
            "$destination->name is no destination any more; the directory stays.",
        );
    }
}
