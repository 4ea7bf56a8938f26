-- The functions that remove something take no time in the future: whoever calls them with one removes no more than is old by now.
create or replace function thin_revisions(at timestamptz default now()) returns bigint
language plpgsql security definer set search_path = public, pg_temp as $$
declare
    gone bigint;
    as_of timestamptz := least(at, now());
begin
    perform set_config('bright_angle.removal', 'by rule', true);
    delete from revision using (
        select r.site_id, r.number,
               row_number() over (
                   partition by r.site_id,
                       date_trunc(case when r.created_at > as_of - interval '7 days' then 'hour' else 'day' end, r.created_at, 'UTC'),
                       r.created_at > as_of - interval '7 days'
                   order by r.number desc) as place
        from revision r
        where r.created_at <= as_of - interval '1 day'
    ) old
    where revision.site_id = old.site_id and revision.number = old.number and old.place > 1
      and not exists (select from site where site.id = old.site_id and site.revision = old.number)
      and not exists (select from revision_name named where named.site_id = old.site_id and named.number = old.number);
    get diagnostics gone = row_count;
    perform set_config('bright_angle.removal', '', true);
    return gone;
end
$$;

create or replace function collect_pictures(at timestamptz default now()) returns bigint
language plpgsql security definer set search_path = public, pg_temp as $$
declare
    gone bigint;
begin
    delete from picture
    where created_at <= least(at, now()) - interval '1 day'
      and not exists (select from picture_use used where used.picture = picture.name);
    get diagnostics gone = row_count;
    return gone;
end
$$;
