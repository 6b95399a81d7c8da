<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Contracts\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\Relation;

/** A model whose rows are one person's own: an address that names another's leads nowhere, whoever asks for it. */
trait OfPerson
{
    /**
     * @param  Model|Builder|Relation<Model, Model, mixed>  $query
     * @param  mixed  $value
     * @param  string|null  $field
     */
    public function resolveRouteBindingQuery($query, $value, $field = null)
    {
        return parent::resolveRouteBindingQuery($query, $value, $field)
            ->where($this->qualifyColumn('person_id'), (int) Person::viewer()?->id);
    }
}
