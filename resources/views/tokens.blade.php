@use('App\Text\Amount')
<x-page title="Tokens for build pipelines">
    <div class="two">
        <div class="stack">
            @if ($made !== null)
                <section class="sheet hand-over" aria-labelledby="made">
                    <h2 id="made">{{ $made->name }} <small>shown now and never again</small></h2>
                    <p>Keep it where the pipeline keeps its secrets, as <code>CELLARIUM_TOKEN</code>:</p>
                    <p><code class="secret breakable" id="token">{{ $secret }}</code></p>
                    <p>In the pipeline, behind the step that builds the site:</p>
                    <pre class="code" id="line" tabindex="0">{{ $made->curl() }}</pre>
                </section>
            @endif
            <section class="sheet" aria-labelledby="tokens">
                <h1 id="tokens">Tokens for build pipelines <small>{{ $tokens->count() ?: '' }}</small></h1>
                @if ($tokens->isEmpty())
                    <p class="calm">None yet. With a token a pipeline delivers what it has built, in your name.</p>
                @else
                    <x-table caption="Tokens" class="is-roomy">
                        <thead>
                            <tr>
                                <th scope="col">Used by</th>
                                <th scope="col">May</th>
                                <th scope="col">Works</th>
                                <th scope="col">Last used</th>
                                <th scope="col"></th>
                            </tr>
                        </thead>
                        <tbody>
                            @foreach ($tokens as $token)
                                <tr>
                                    <td><bdi>{{ $token->name }}</bdi></td>
                                    <td data-label="may">{{ $token->scope->words() }}
                                        @if ($token->package_name !== null)
                                            named <x-path :path="$token->package_name" />
                                        @endif
                                    </td>
                                    <td data-label="works">{{ $token->words() }}</td>
                                    <td class="when" data-label="last used">{{ $token->used_at === null ? 'never'
                                        : Amount::ago($token->used_at) }}</td>
                                    <td class="acts">
                                        @if ($token->works())
                                            <x-action to="/me/tokens/{{ $token->id }}/revoke"
                                                aria-label="Revoke {{ $token->name }}">Revoke</x-action>
                                        @endif
                                    </td>
                                </tr>
                            @endforeach
                        </tbody>
                    </x-table>
                @endif
            </section>
        </div>
        <section class="sheet" aria-labelledby="new">
            <h2 id="new">Make a token</h2>
            <form method="post" action="/me/tokens" class="stack-form">
                @csrf
                @foreach ($errors->all() as $message)
                    <p class="word is-trouble" role="alert">{{ $message }}</p>
                @endforeach
                <label for="name">What uses it</label>
                <input class="entry" id="name" name="name" value="@exactly(old('name', ''))" maxlength="80" required>
                <label for="scope">It may</label>
                <select class="entry" id="scope" name="scope">
                    @foreach ($scopes as $scope)
                        <option value="@exactly($scope->value)" @selected($scope->value === old('scope'))>
                            {{ $scope->words() }}</option>
                    @endforeach
                </select>
                <label for="package_name">Only packages named</label>
                <input class="entry" id="package_name" name="package_name" value="@exactly(old('package_name', ''))"
                    placeholder="any">
                <label for="days">It works</label>
                <select class="entry" id="days" name="days">
                    @foreach ($days as $value => $words)
                        <option value="@exactly($value)">{{ $words }}</option>
                    @endforeach
                </select>
                <div class="row-acts"><button class="act is-main" data-once>Make it</button></div>
            </form>
            <p class="soft">It delivers packages and nothing else; what comes of them is decided here.</p>
        </section>
    </div>
</x-page>
