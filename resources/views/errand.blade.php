<x-page :title="$task::title()" place="Accounts">
    @include('parts.errand')
</x-page>
