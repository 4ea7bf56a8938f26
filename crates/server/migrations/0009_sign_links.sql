-- What a client is shown by a link to agree on, and what was signed there. The link's secret is known by its SHA-256 alone.
create table sign_link (
    id          uuid        primary key,
    site_id     uuid        not null references site (id),
    secret_hash bytea       not null unique check (octet_length(secret_hash) = 32),
    -- The mark of what is shown: a design that has another was changed since.
    shown       text        not null check (shown ~ '^[0-9a-f]{64}$'),
    -- Nothing once it is over.
    sheet       jsonb,
    made_at     timestamptz not null default now(),
    ends_at     timestamptz not null check (ends_at > made_at),
    ended_at    timestamptz,
    signed_at   timestamptz,
    signed_name text        check (char_length(signed_name) between 1 and 300),
    signature   jsonb,
    check ((signed_at is null) = (signed_name is null) and (signed_at is null) = (signature is null))
);
create index sign_link_site on sign_link (site_id, made_at desc);
grant select, insert on sign_link to bright_angle_server;
grant update (sheet, ended_at, signed_at, signed_name, signature) on sign_link to bright_angle_server;

-- The revision that a client agreed to has a name from then on: what has one is never thinned out.
create function name_agreed() returns trigger language plpgsql as $$
declare
    before integer;
    signed jsonb := coalesce(new.file -> 'agreements', '[]');
begin
    select jsonb_array_length(coalesce(file -> 'agreements', '[]')) into before
    from revision where site_id = new.site_id and number = new.based_on;
    if before is not null and jsonb_array_length(signed) > before then
        insert into revision_name (site_id, number, name, agreed)
        values (new.site_id, new.number, left('Agreed by ' || (signed -> -1 ->> 'name'), 200), true)
        on conflict do nothing;
    end if;
    return new;
end
$$;
create trigger revision_is_agreed after insert on revision for each row execute function name_agreed();
