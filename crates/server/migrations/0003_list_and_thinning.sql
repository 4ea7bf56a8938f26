-- What the list of sites shows stands beside the site, so that the list reads no revision.
alter table site
    add column name       text,
    add column revision   integer,
    add column saved_at   timestamptz,
    add column says       text,
    add column targets    integer not null default 0,
    add column cameras    integer not null default 0,
    add column deleted_at timestamptz;

update site set
    name = newest.file->>'name', revision = newest.number, saved_at = newest.created_at, says = newest.says,
    targets = jsonb_array_length(newest.file->'targets'), cameras = jsonb_array_length(newest.file->'cameras')
from (select distinct on (site_id) site_id, number, created_at, says, file from revision order by site_id, number desc) newest
where newest.site_id = site.id;

-- A site without a revision was never kept; a deleted one keeps its name and the time, nothing else.
delete from site where revision is null;
alter table site
    alter column name set not null,
    alter column revision set not null,
    alter column saved_at set not null,
    alter column says set not null;

create index site_by_time on site (saved_at desc, id desc) where deleted_at is null;

-- Which revisions name a picture: what none names is collected.
create table picture_use (
    site_id uuid    not null,
    number  integer not null,
    picture text    not null,
    primary key (site_id, number, picture),
    foreign key (site_id, number) references revision (site_id, number) on delete cascade
);
create index picture_use_by_picture on picture_use (picture);

create function pictures_named(file jsonb) returns setof text language sql immutable as $$
    select distinct named #>> '{}' from (
        select jsonb_path_query(file, 'lax $.drawing.picture') as named
        union all select jsonb_path_query(file, 'lax $.spots[*].photos[*].picture')
        union all select jsonb_path_query(file, 'lax $.targets[*].photos[*].picture')
    ) pictures where named is not null
$$;

insert into picture_use select site_id, number, pictures_named(file) from revision;

create function note_pictures() returns trigger language plpgsql as $$
begin
    insert into picture_use select new.site_id, new.number, pictures_named(new.file);
    return null;
end
$$;
create trigger revision_names_pictures after insert on revision for each row execute function note_pictures();

-- A state that somebody gave a name, or agreed on, is never thinned out.
create table revision_name (
    site_id  uuid        not null,
    number   integer     not null,
    name     text        not null check (length(name) between 1 and 200),
    agreed   boolean     not null default false,
    named_at timestamptz not null default now(),
    primary key (site_id, number),
    foreign key (site_id, number) references revision (site_id, number) on delete cascade
);

-- Revisions go in two ways only: thinned by rule, or with their site. Both are functions of the owner's; the server's role has
-- no right to delete or change one. Whoever has (the owner) is still refused outside of these two.
create or replace function refuse_change() returns trigger language plpgsql as $$
begin
    if tg_op = 'DELETE' and current_setting('bright_angle.removal', true) = 'by rule' then
        return old;
    end if;
    raise exception 'revisions are append-only';
end
$$;
create trigger revision_is_not_emptied before truncate on revision for each statement execute function refuse_change();

-- Of what is older than a day the last of each hour stays, of what is older than a week the last of each day; the newest and
-- what has a name always. Answers how many went.
create function thin_revisions(at timestamptz default now()) returns bigint
language plpgsql security definer set search_path = public, pg_temp as $$
declare
    gone bigint;
begin
    perform set_config('bright_angle.removal', 'by rule', true);
    delete from revision using (
        select r.site_id, r.number,
               row_number() over (
                   partition by r.site_id,
                       date_trunc(case when r.created_at > at - interval '7 days' then 'hour' else 'day' end, r.created_at, 'UTC'),
                       r.created_at > at - interval '7 days'
                   order by r.number desc) as place
        from revision r
        where r.created_at <= at - interval '1 day'
    ) old
    where revision.site_id = old.site_id and revision.number = old.number and old.place > 1
      and not exists (select from site where site.id = old.site_id and site.revision = old.number)
      and not exists (select from revision_name named where named.site_id = old.site_id and named.number = old.number);
    get diagnostics gone = row_count;
    perform set_config('bright_angle.removal', '', true);
    return gone;
end
$$;

-- Deletes pictures that no revision names and that nobody sent within a day. Answers how many went.
create function collect_pictures(at timestamptz default now()) returns bigint
language plpgsql security definer set search_path = public, pg_temp as $$
declare
    gone bigint;
begin
    delete from picture
    where created_at <= at - interval '1 day'
      and not exists (select from picture_use used where used.picture = picture.name);
    get diagnostics gone = row_count;
    return gone;
end
$$;

-- Deletes a site's revisions and the pictures that only it names; the site stays as a tombstone. Its row must be locked.
create function bury_site(site_to_bury uuid) returns void
language plpgsql security definer set search_path = public, pg_temp as $$
begin
    perform set_config('bright_angle.removal', 'by rule', true);
    delete from picture
    where exists (select from picture_use used where used.picture = picture.name and used.site_id = site_to_bury)
      and not exists (select from picture_use used where used.picture = picture.name and used.site_id <> site_to_bury);
    delete from revision where site_id = site_to_bury;
    update site set deleted_at = now(), says = 'deleted', targets = 0, cameras = 0 where id = site_to_bury;
    perform set_config('bright_angle.removal', '', true);
end
$$;

-- The server's own role: reads, and adds. It owns nothing.
do $$
begin
    if not exists (select from pg_roles where rolname = 'bright_angle_server') then
        create role bright_angle_server nologin;
    end if;
end
$$;
revoke all on function thin_revisions(timestamptz), collect_pictures(timestamptz), bury_site(uuid) from public;
grant execute on function thin_revisions(timestamptz), collect_pictures(timestamptz), bury_site(uuid) to bright_angle_server;
grant select, insert on site, revision, picture, picture_use, revision_name to bright_angle_server;
grant update (name, revision, saved_at, says, targets, cameras) on site to bright_angle_server;
grant update (created_at) on picture to bright_angle_server;
grant update (name, agreed, named_at) on revision_name to bright_angle_server;
grant delete on revision_name to bright_angle_server;
grant select on _sqlx_migrations to bright_angle_server;
