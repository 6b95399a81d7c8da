<x-page :title="$errand->kind->title()" place="Accounts">
    @include('parts.errand')
</x-page>
