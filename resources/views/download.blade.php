<x-page title="Download" place="Accounts">
    @include('parts.download')
</x-page>
