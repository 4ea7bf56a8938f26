-- A site is a name for a chain of revisions; each revision is a whole site file and is never changed.
create table site (
    id         uuid primary key,
    created_at timestamptz not null default now()
);

create table revision (
    site_id    uuid        not null references site (id),
    number     integer     not null check (number > 0),
    based_on   integer     check (based_on > 0 and based_on < number),
    created_at timestamptz not null default now(),
    says       text        not null check (length(says) between 1 and 200),
    file       jsonb       not null check (jsonb_typeof(file) = 'object'),
    primary key (site_id, number)
);

create function refuse_change() returns trigger language plpgsql as $$
begin
    raise exception 'revisions are append-only';
end
$$;

create trigger revision_is_append_only
    before update or delete on revision
    for each row execute function refuse_change();
